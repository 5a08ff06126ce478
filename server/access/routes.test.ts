import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ROUTE_TABLE, ruleOf, type RouteRule } from './route-table';
import { RESOURCES } from '../resources';
import { DEMO } from '../../core/test/demo';
import type { Outside } from '../test/outside';
import { sharedShop, type SharedShop } from '../test/shared-shop';
import { bringList, cardOf } from '@emery/core/job';

/*
 * Every address of the API, asked for as everybody who may come: nobody, each role, a device that a job was lent to,
 * one whose session ended, and one with a cookie of another shop.
 */
let shop: SharedShop;
let other: SharedShop;
const callers: Record<string, Outside> = {};
let job = '';
let otherJob = '';

interface Routed {
  route?: { path: string; methods: Record<string, boolean> };
}
/** What the routers really answer. */
const routed = () =>
  RESOURCES.flatMap(({ path: at, routes }) =>
    (routes(shop.data) as unknown as { stack: Routed[] }).stack.flatMap(({ route }) =>
      route
        ? Object.keys(route.methods).map((verb) => `${verb.toUpperCase()} ${at}${route.path}`.replace(/\/$/, ''))
        : [],
    ),
  );

async function newJob(): Promise<string> {
  const vehicle = (await shop.ask('POST', '/vehicles', { name: 'Loader' })).body as { id: string };
  const drive = (await shop.ask('POST', '/drives', { vehicleId: vehicle.id, document: DEMO.rescue })).body as {
    id: string;
  };
  const { order, steps } = cardOf(DEMO.rescue);
  const rest = { off: order.off, on: order.on, steps, bring: bringList(DEMO.rescue) };
  const sheet = { drive: DEMO.rescue, unit: 'mm', belt: null, ...rest };
  const id = randomUUID();
  const at = '2026-11-30T10:00:00.000Z';
  expect((await shop.ask('POST', '/jobs', { id, driveId: drive.id, by: 'Ann', at, sheet })).status).toBe(201);
  return id;
}

beforeAll(async () => {
  [shop, other] = [await sharedShop('empty'), await sharedShop('empty')];
  [job, otherJob] = [await newJob(), await newJob()];
  for (const role of ['counter', 'bench', 'owner'] as const) callers[role] = await shop.signedIn(role);
  callers['nobody'] = shop.device();
  callers['ended'] = await shop.signedIn('owner');
  await callers['ended'].ask('POST', '/access/sign-out');
  callers['foreign'] = shop.device();
  callers['foreign'].cookie = (await other.signedIn()).cookie;
  callers['lent'] = shop.device();
  const { token } = await shop.code({ job, name: 'Tam' });
  await callers['lent'].ask('POST', '/access/redeem', { token });
});
afterAll(() => Promise.all([shop.stop(), other.stop()]));

test('the table has every address that is answered, and no other, each once', () => {
  const table = ROUTE_TABLE.map(({ method, path: at }) => `${method} ${at}`);
  expect([...table].sort()).toEqual(routed().sort());
  expect(new Set(table).size).toBe(table.length);
});

/** What stands in the place of each parameter: nothing that there is, so that nothing is changed by asking. */
const addressOf = ({ path: at }: RouteRule, id = randomUUID()) => at.replace(/:\w+/g, id);

/** Whether a caller is let through, by the table as a person reads it. */
function expected(who: string, { least, lent, path: at }: RouteRule): 'in' | 'sign in' | 'not allowed' {
  if (least === 'anybody') return 'in';
  if (['nobody', 'ended', 'foreign'].includes(who)) return 'sign in';
  if (who === 'lent') return lent === 'all' || (lent === 'job' && at.includes('LENT')) ? 'in' : 'not allowed';
  const may = {
    counter: ['counter'],
    bench: ['counter', 'bench'],
    owner: ['counter', 'bench', 'owner'],
  }[who]!;
  return may.includes(least) ? 'in' : 'not allowed';
}

/** Those that would end the session that asks. */
const ENDS = ['POST /access/sign-out'];

test.each(['nobody', 'ended', 'foreign', 'lent', 'counter', 'bench', 'owner'])('%s', async (who) => {
  const wrong: string[] = [];
  for (const rule of ROUTE_TABLE) {
    if (ENDS.includes(`${rule.method} ${rule.path}`)) continue;
    const { status, body } = await callers[who]!.ask(
      rule.method,
      addressOf(rule),
      rule.method === 'GET' || rule.method === 'DELETE' ? undefined : {},
    );
    const { title, ended } = body as { title?: string; ended?: string };
    const notAllowed = status === 403 && title === 'Not allowed' ? 'not allowed' : 'in';
    const was = status === 401 ? 'sign in' : notAllowed;
    const wanted = expected(who, rule);
    if (was !== wanted) wrong.push(`${rule.method} ${rule.path}: ${was} (${status}), not ${wanted}`);
    if (status === 401 && ended !== (who === 'ended' ? 'signed-out' : 'none')) wrong.push(`${rule.path}: ${ended}`);
    if (status >= 500) wrong.push(`${rule.method} ${rule.path}: ${status} ${JSON.stringify(body)}`);
  }
  expect(wrong).toEqual([]);
});

test('a device that a job was lent to reads and ticks that job, and no other', async () => {
  const { ask } = callers['lent']!;
  expect((await ask('GET', `/jobs/${job}`)).status).toBe(200);
  expect((await ask('GET', `/jobs/${job.toUpperCase()}`)).status).toBe(403);
  for (const id of [otherJob, 'pace', randomUUID()]) {
    expect((await ask('GET', `/jobs/${id}`)).status).toBe(403);
    expect((await ask('GET', `/jobs/${id}/events`)).status).toBe(403);
    expect((await ask('POST', `/jobs/${id}/events`, { events: [] })).status).toBe(403);
  }
  expect((await ask('POST', `/jobs/${job}/sign-off`, { by: 'Tam', at: '2026-11-30T10:00:00Z' })).status).toBe(403);
});

test('an address by any other spelling is the same address, or none', async () => {
  const { ask } = callers['counter']!;
  for (const at of ['/SHOP/demo', '/shop/DEMO/', '/Shop/demo/'])
    expect([at, (await ask('POST', at, {})).status]).toEqual([at, 403]);
  for (const at of ['//shop/demo', '/shop//demo', '/%73hop/demo', '/shop/demo//', '/./shop/demo', '/shop/demo;x=1'])
    expect([403, 404]).toContain((await ask('POST', at, {})).status);
  expect((await shop.ask('GET', '/shop')).body.name).toBeDefined();
  expect((await shop.ask('GET', '/vehicles')).body.total).toBe(2);
  expect((await ask('HEAD', '/access/audit')).status).toBe(403);
  expect((await callers['nobody']!.ask('OPTIONS', '/vehicles')).status).toBe(401);
});

test('fixed addresses come before those that take anything in their place', () => {
  expect(ruleOf('GET', '/jobs/pace')?.rule.path).toBe('/jobs/pace');
  expect(ruleOf('GET', '/jobs/x')).toMatchObject({ rule: { path: '/jobs/:id' }, params: { id: 'x' } });
  expect(ruleOf('GET', '/jobs/')?.rule.path).toBe('/jobs');
  expect(ruleOf('TRACE', '/jobs')).toBeNull();
});

test('the document of routes and roles says what the table says', () => {
  const file = path.join(__dirname, '..', '..', 'docs', 'routes-and-roles.md');
  const who = {
    anybody: 'anybody',
    counter: 'counter',
    bench: 'bench',
    owner: 'owner',
    machine: 'owner at the machine',
  };
  const lent = { all: 'yes', job: 'its own job', picture: 'pictures of its job' };
  const rows = ROUTE_TABLE.map(
    (rule) =>
      `| ${rule.method} | \`/api${rule.path}\` | ${who[rule.least]} | ${rule.lent ? lent[rule.lent] : ''} | ${rule.told ?? ''} |`,
  );
  const text = `# Routes and roles

What each address of the API asks of whoever asks for it, out of \`server/access/route-table.ts\`: the least role, what a
device may do that one job was lent to, and what the list of what was done tells of it. What is not here is refused. The
machine that Emery runs on is its owner, without a sign-in, at its loopback address alone.
\`EMERY_WRITE_ANSWERS=1 npx jest server/access/routes\` writes this page.

| Method | Address | Least role | Lent | Told |
| --- | --- | --- | --- | --- |
${rows.join('\n')}
`;
  if (process.env['EMERY_WRITE_ANSWERS'] === '1') writeFileSync(file, text);
  expect(text).toBe(readFileSync(file, 'utf8'));
});
