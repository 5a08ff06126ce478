import { randomUUID } from 'node:crypto';
import { changesBetween } from '@emery/core/together';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { draws } from '../core/test/draws';
import { DEMO } from '../core/test/demo';
import { bringList, cardOf } from '@emery/core/job';
import { RESOURCES } from './resources';
import { asking, running, type Running } from './test/running';
import type { DataSource } from 'typeorm';

/*
 * Requests that somebody makes who wants to see it break: each kind that there is, with what it should be given and
 * anything of that replaced, added, doubled or left out. None is a fault of ours; what is refused is refused in one
 * line that names a field once; and the shop is as sound afterwards. `EMERY_FUZZ` says how many, `EMERY_FUZZ_AT` at
 * which server: a demo shop.
 */
const COUNT = Number(process.env['EMERY_FUZZ'] ?? draws(2400));

let shop: Pick<Running, 'ask' | 'base'>;
let stop = () => Promise.resolve();
let archive: Uint8Array;
const ids: Record<string, string> = {};
beforeAll(async () => {
  const at = process.env['EMERY_FUZZ_AT'];
  if (at) shop = { base: at, ask: asking(at) };
  else {
    const own = await running('demo');
    [shop, stop] = [own, own.stop];
  }
  const [vehicle] = (await shop.ask('GET', '/vehicles')).body.vehicles as { id: string; drives: { id: string }[] }[];
  Object.assign(ids, { vehicle: vehicle!.id, drive: vehicle!.drives[0]!.id });
  const job = { id: randomUUID(), driveId: ids['drive'], by: 'Ann', at: NOW, sheet };
  ids['job'] = job.id;
  expect((await shop.ask('POST', '/jobs', job)).status).toBe(201);
  archive = new Uint8Array(await (await fetch(`${shop.base}/export`)).arrayBuffer());
  const [picture] = Object.keys(unzipSync(archive)).filter((name) => name.startsWith('pictures/'));
  ids['hash'] = /[0-9a-f]{64}/.exec(picture!)![0];
});
afterAll(() => stop());

const NOW = '2026-11-26T10:00:00.000Z';
const sheet = (() => {
  const { order, steps } = cardOf(DEMO.pickup);
  const rest = { off: order.off, on: order.on, steps: steps.slice(0, 3), bring: bringList(DEMO.pickup) };
  return { drive: DEMO.pickup, unit: 'mm', belt: null, ...rest };
})();
const event = (more: object) => ({ id: randomUUID(), at: NOW, by: 'Ann', ...more });

/** What each kind is given when it is meant well. */
const BODIES: Record<string, () => unknown> = {
  'PATCH /shop/': () => ({
    name: 'Yard',
    unit: 'mm',
    hourRate: 80,
    limits: [{ check: 'rock', kind: 'solid', replace: 0.4 }],
  }),
  'POST /vehicles/': () => ({
    name: 'Loader',
    plate: 'L',
    odometer: 5,
    odometerUnit: 'km',
    notes: '',
    id: randomUUID(),
  }),
  'PUT /vehicles/:id': () => ({
    ...{ revision: 1, saveId: randomUUID() },
    ...{ name: 'Loader', plate: 'L', odometer: 5, odometerUnit: 'km', notes: '' },
  }),
  'POST /drives/': () => ({ vehicleId: ids['vehicle'], document: DEMO.pickup }),
  'PATCH /drives/:id': () => ({
    ...{ revision: 1, saveId: randomUUID() },
    changes: changesBetween(DEMO.pickup, DEMO.climb),
  }),
  'PUT /drives/:id/vehicle': () => ({ vehicleId: ids['vehicle'] }),
  'POST /stock/': () => ({
    replace: false,
    rows: [{ section: 'PK', ribs: '6', length: '1000', code: 'K', price: '3', shelf: '2' }],
  }),
  'PUT /bands/:role': () => ({ least: 1500, continuous: 9000, burst: null }),
  'POST /pulleys/': () => ({ label: 'Fan', role: 'fan', surface: 'vee', diameter: 130, count: 2, set: 'A' }),
  'POST /parts/': () => ({
    rows: [{ label: 'S', kind: 'spacer', depth: '2.5', plusminus: '0.1', price: '3', count: '2' }],
  }),
  'POST /records/history': () => ({ look: true, rows: [{ vehicle: 'Loader', number: 'N', fitted: '2020-01-01' }] }),
  'POST /jobs/': () => ({ id: randomUUID(), driveId: ids['drive'], by: 'Ann', at: NOW, sheet }),
  'POST /jobs/:id/events': () => ({
    events: [
      ...[event({ kind: 'tick', step: 'a', done: true }), event({ kind: 'note', text: 'x' })],
      ...[event({ kind: 'odometer', odometer: 5 }), event({ kind: 'belt', belt: 'main', fitted: 'new', why: 'worn' })],
      ...[event({ kind: 'part', name: 'P', count: 1, stock: 1 }), event({ kind: 'timer', running: true })],
      event({ kind: 'photo', photo: { hash: ids['hash'], width: 5, height: 5 } }),
      event({ kind: 'plan', change: 'add', step: sheet.steps[0], after: null }),
    ],
  }),
  'PUT /live/here/:device': () => ({
    ...{ name: 'Ann', kind: 'phone', follows: null },
    tabs: [{ tab: randomUUID(), drive: ids['drive'], stage: 'size', part: 'pulley alt-1' }],
  }),
  'POST /live/here/:device/point': () => ({ drive: ids['drive'], at: { x: 5, y: -5 }, part: '' }),
  'POST /live/takes': () => ({ from: randomUUID(), to: null, by: 'Ann', kind: 'reading', label: 'Tape', unit: 'mm' }),
  'PATCH /live/takes/:id': () => ({ state: 'done', part: 100, result: { text: '501' } }),
  'POST /jobs/:id/sign-off': () => ({ by: 'Ann', at: NOW }),
  'POST /import': () => ({ files: [{ name: 'a.emery.json', text: JSON.stringify(DEMO.climb) }] }),
};

interface Layer {
  route?: { path: string; methods: Record<string, boolean> };
}
const KINDS = RESOURCES.flatMap(({ path: at, routes }) =>
  (routes({ getRepository: () => ({}), manager: {} } as unknown as DataSource).stack as unknown as Layer[]).flatMap(
    ({ route }) =>
      route ? Object.keys(route.methods).map((method) => `${method.toUpperCase()} ${at}${route.path}`) : [],
  ),
);

/** Drawn from a seed that the run has, so that it can be had again. */
let state = Number(process.env['EMERY_SEED'] ?? (process.env['CI'] ? 7 : Date.now() % 1e9)) + 1;
const random = () => {
  state = (state * 48271) % 2147483647;
  return state / 2147483647;
};
const oneOf = <T>(values: readonly T[]): T => values[Math.floor(random() * values.length)]!;

const ODD: readonly unknown[] = [
  ...[null, true, false, 0, -1, 1e30, -1e308, 1e308, 0.1, 2 ** 31, 2 ** 53, -0, 9_999_999_999],
  ...[
    '',
    ' ',
    'x',
    '𝒳',
    '\u0000',
    '\ud800',
    'a'.repeat(5000),
    '%',
    "'; DROP TABLE vehicle; --",
    '<b onload=x>',
    '\n\n',
  ],
  ...['constructor', '__proto__', 'toString', 'NaN', '1e999', '-5', '+275760-09-13T00:00:00Z', '0001-01-01T00:00:00Z'],
  ...['2026-02-30T25:61:00Z', '9999-12-31T23:59:59Z', randomUUID(), randomUUID().toUpperCase(), '../../etc/passwd'],
  ...[[], {}, [[]], [null], [{}], { toString: 1 }, { length: 5 }, Array(600).fill({}), Array(50).fill('x'), { id: {} }],
  ...[JSON.parse('{"__proto__": {"a": 1}}'), JSON.parse('{"constructor": {"prototype": 1}}'), { kind: 'constructor' }],
];

/** The same with something of it other than it should be. */
function spoiled(value: unknown, depth = 0): unknown {
  if (depth > 0 && (random() < 0.25 || typeof value !== 'object' || value === null)) return oneOf(ODD);
  if (Array.isArray(value)) {
    const items = [...(value as unknown[])];
    const k = Math.floor(random() * (items.length + 1));
    const way = random();
    if (way < 0.2) return [...items, items[k] ?? oneOf(ODD)];
    if (way < 0.3) return items.filter((_, at) => at !== k);
    if (way < 0.35) return [...items, ...Array<unknown>(200).fill(items[0] ?? {})];
    return items.map((item, at) => (at === k ? spoiled(item, depth + 1) : item));
  }
  if (typeof value !== 'object' || value === null) return oneOf(ODD);
  const entries = Object.entries(value);
  const k = Math.floor(random() * entries.length);
  const way = random();
  if (way < 0.1) return Object.fromEntries(entries.filter((_, at) => at !== k));
  if (way < 0.15) return { ...value, [oneOf(['x', '__proto__', 'constructor', '', 'a.b[0]', '\n'])]: oneOf(ODD) };
  return Object.fromEntries(entries.map(([key, entry], at) => [key, at === k ? spoiled(entry, depth + 1) : entry]));
}

const QUERIES = [
  '',
  '?limit=-1',
  '?limit=1e9',
  '?offset=99999999',
  '?search=%00',
  '?search=%25_',
  '?search[]=a&limit[]=2',
];
const MORE = [
  '?drives=a,b',
  '?drives[]=x',
  '?vehicle=%27',
  '?after=-1',
  '?after=1e99',
  '?section=PK&ribs=x',
  '?from=x&to=1e999',
];

function address(kind: string): string {
  const [, at] = kind.split(' ') as [string, string];
  const own = at.includes('/vehicles') ? ids['vehicle'] : at.includes('/jobs') ? ids['job'] : ids['drive'];
  // One lone half of a sign cannot be written in an address.
  const odd = String(oneOf(ODD.filter((entry) => typeof entry !== 'object'))).replace(/[\ud800-\udfff]/g, '?');
  const id = random() < 0.6 ? own! : encodeURIComponent(odd.slice(0, 100) || 'x');
  const way = at.replace(/:(id|hash|role|device)/, (_, name: string) =>
    name === 'role' && random() < 0.5 ? 'fan' : id,
  );
  return `${way}${random() < 0.3 ? oneOf([...QUERIES, ...MORE]) : ''}`;
}

function body(kind: string): unknown {
  if (kind === 'POST /photos/') return strToU8(JSON.stringify(oneOf(ODD)));
  if (kind === 'POST /import/archive') {
    const files = unzipSync(archive);
    const names = Object.keys(files);
    const way = random();
    if (way < 0.3) return archive.slice(0, Math.floor(random() * archive.length));
    const name = oneOf(names);
    const text = Buffer.from(files[name]!).toString('utf8');
    if (way < 0.5) delete files['SHA256SUMS'];
    if (/\.json$/.test(name)) files[name] = strToU8(JSON.stringify(spoiled(JSON.parse(text))) ?? '');
    else files[name] = strToU8(text.slice(0, Math.floor(random() * text.length)));
    if (name !== 'shop.json')
      files['shop.json'] = strToU8(
        Buffer.from(files['shop.json']!).toString('utf8').replace('"sums": "SHA256SUMS",', ''),
      );
    return zipSync(files, { level: 0 });
  }
  const lawful = BODIES[kind]?.();
  if (random() < 0.04) return oneOf(['', '{', '[]', 'null', '"x"', '{"a":', '[1,2', 'x'.repeat(100)]);
  const sent = random() < 0.05 ? oneOf(ODD) : spoiled(lawful ?? {});
  return JSON.stringify(sent) ?? 'null';
}

test(`${COUNT} requests that should not be: no fault, and each refusal is one line`, async () => {
  const statuses = new Map<number, number>();
  for (let k = 0; k < COUNT; k += 1) {
    const kind = oneOf(KINDS);
    const method = kind.split(' ')[0]!;
    const seed = state;
    const at = address(kind);
    const sent = method === 'GET' || method === 'DELETE' ? undefined : body(kind);
    const type = kind.includes('archive') ? 'application/zip' : kind.includes('photos') ? 'image/jpeg' : undefined;
    const answer = await shop.ask(method, at, sent, type ? { 'content-type': type } : {});
    statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
    const summary = `${kind} (seed ${seed}): ${at} ${String(sent).slice(0, 400)} -> ${answer.status} ${JSON.stringify(answer.body)}`;
    if (answer.status >= 500) throw new Error(summary.slice(0, 1500));
    if (answer.status < 400) continue;
    expect([kind, answer.type]).toEqual([kind, expect.stringMatching(/^application\/problem\+json/)]);
    const { detail, errors = [] } = answer.body as { detail: string; errors?: { path: string; message: string }[] };
    if (/[\n\r]/.test(detail) || detail.length > 700) throw new Error(`more than a line: ${summary}`.slice(0, 2500));
    for (const { path, message } of errors)
      if (path !== '' && message.startsWith(`${path} `))
        throw new Error(`twice: ${path} ${message} in ${summary}`.slice(0, 2500));
  }
  if (process.env['EMERY_FUZZ']) process.stderr.write(`${JSON.stringify([...statuses])}\n`);
  expect(statuses.get(422)).toBeGreaterThan(COUNT / 20);
  // The shop stands, and goes out and comes in again as it is.
  for (const where of [
    '/vehicles',
    '/drives',
    '/records',
    '/records/due',
    '/records/belts',
    '/stock',
    '/jobs',
    '/shop',
  ])
    expect((await shop.ask('GET', where)).status).toBe(200);
  const archive = new Uint8Array(await (await fetch(`${shop.base}/export`)).arrayBuffer());
  const other = await running('empty');
  const came = await other.ask('POST', '/import/archive', archive, { 'content-type': 'application/zip' });
  const again = new Uint8Array(await (await fetch(`${other.base}/export`)).arrayBuffer());
  await other.stop();
  expect([came.status, came.body]).toEqual([201, expect.anything()]);
  expect(Buffer.compare(Buffer.from(again), Buffer.from(archive))).toBe(0);
}, 3_600_000);
