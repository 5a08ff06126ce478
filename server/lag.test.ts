import { type ChildProcess, fork } from 'node:child_process';
import { changesBetween } from '@emery/core/together';
import { randomBytes, randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import sharp from 'sharp';
import type { DataSource } from 'typeorm';
import type { Drive } from '@emery/core/drive';
import { bringList, cardOf } from '@emery/core/job';
import { DEMO } from '../core/test/demo';
import NODE_FLAGS from './node-flags.json';
import { RESOURCES } from './resources';
import { fillShop } from './shop/fill-shop';
import { largest } from './test/largest';
import { Outside } from './test/outside';

/*
 * No request holds the server's loop: each kind that there is, over a shop of two hundred and fifty vehicles and with
 * as much as the other tests send, leaves it within the limit. Held in a process of its own, as processor time of one
 * turn of the loop without what the machine's host takes from it, so that it says the same on a busy machine or host.
 */
const MOST_MS = 50;
/** A collection of garbage may fall into any turn; what holds the loop holds it every time. */
const TRIES = 3;
/** A machine of which its host takes four fifths is five times as slow. */
const PATIENCE_MS = 400_000;

let server: ChildProcess;
let door = '';
let base = '';
/** Another device, for what the machine itself is not asked. */
let outside: Outside;
const OWNER = { name: 'Ines', passphrase: 'four wet belts today' };
const staff = () => ({ name: randomUUID(), role: 'bench', passphrase: 'one of their own' });
beforeAll(async () => {
  const databases = `${process.env['EMERY_TEST_DATABASE']!}lag_`;
  server = fork(path.join(__dirname, 'test', 'shops.ts'), [databases], {
    execArgv: [...NODE_FLAGS, '--import', 'tsx'],
    env: { ...process.env, EMERY_PROBE: '1' },
  });
  const { port } = await new Promise<{ port: number }>((resolve, reject) =>
    server.once('message', (said) => resolve(said as { port: number })).once('exit', reject),
  );
  door = `http://127.0.0.1:${port}`;
  const shop = (await (await fetch(`${door}/demo`, { method: 'POST' })).json()) as { port: number };
  base = `http://127.0.0.1:${shop.port}/api`;
  await fillShop(`${databases}${server.pid}_1`, 1000, DEMO.rescue, 2);
  await ask('POST', '/access/first', OWNER);
  const { addresses, problem } = (await ask('PUT', '/access/sharing', { on: true })).body;
  if (problem) throw new Error(problem as string);
  const keys = path.join(tmpdir(), `emery-share-${server.pid}`);
  outside = new Outside(addresses[0] as string, readFileSync(path.join(keys, 'authority.crt'), 'utf8'));
}, 120_000);
const backupFolder = mkdtempSync(path.join(tmpdir(), 'emery-lag-'));
afterAll(() => {
  server.kill('SIGKILL');
  rmSync(backupFolder, { recursive: true, force: true });
});

const held = async () => ((await (await fetch(door)).json()) as { heldMs: number }).heldMs;

interface Answer {
  status: number;
  // Bodies of many shapes; each request says what it takes of them.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  body: any;
}
async function ask(method: string, where: string, sent?: unknown, type = 'application/json'): Promise<Answer> {
  const response = await fetch(`${base}${where}`, {
    method,
    ...(sent !== undefined && {
      headers: { 'content-type': type },
      body: (sent instanceof Uint8Array ? sent : JSON.stringify(sent)) as string,
    }),
  });
  const text = await response.text();
  return { status: response.status, body: text.startsWith('{') ? JSON.parse(text) : text };
}

const many = (count: number, row: (k: number) => object) => ({ rows: Array.from({ length: count }, (_, k) => row(k)) });
const newVehicle = async () => (await ask('POST', '/vehicles', { name: `Loader ${randomUUID()}`, plate: 'L' })).body;
const newDrive = async (document: Drive = DEMO.rescue) =>
  (await ask('POST', '/drives', { vehicleId: (await newVehicle()).id, document })).body;
const NOW = '2026-11-26T10:00:00.000Z';
const event = (more: object) => ({ id: randomUUID(), at: NOW, by: 'Ann', ...more });
const sheet = (() => {
  const { order, steps } = cardOf(DEMO.rescue);
  const rest = { off: order.off, on: order.on, steps, bring: bringList(DEMO.rescue) };
  return { drive: DEMO.rescue, unit: 'mm', belt: null, ...rest };
})();
const newJob = async () => ({ id: randomUUID(), driveId: (await newDrive()).id, by: 'Ann', at: NOW, sheet });
const begun = async () => (await ask('POST', '/jobs', await newJob())).body;
/** As large as a photograph gets, and another each time: grain does not pack. */
const photo = () =>
  sharp(randomBytes(3000 * 2100), { raw: { width: 3000, height: 2100, channels: 1 } })
    .jpeg({ quality: 90 })
    .toBuffer();
const plate = async () => (await ask('GET', '/vehicles?limit=1')).body.vehicles[0];
const LARGEST = largest();
const files = (count: number) => {
  const text = JSON.stringify(DEMO.rescue);
  return Array.from({ length: count }, (_, k) => ({ name: `${k}.emery.json`, text }));
};

/** What a shop is asked once, and has behind it. */
const ONCE = ['POST /shop/demo', 'POST /access/first'];

const HERE = {
  ...{ name: 'Ann', kind: 'phone', follows: null },
  tabs: [{ tab: 't', drive: randomUUID(), stage: 'size', part: '' }],
};
const TAKE = { from: randomUUID(), to: null, by: 'Ann', kind: 'sound', label: 'Pluck', unit: '' };

/** Each kind of request: what it needs is made before, and what is sent is then timed. */
const KINDS: Record<string, () => Promise<() => Promise<Answer>>> = {
  'GET /health/': async () => () => ask('GET', '/health'),
  'GET /shop/': async () => () => ask('GET', '/shop'),
  'PATCH /shop/': async () => () => ask('PATCH', '/shop', { unit: 'mm', name: 'Yard' }),
  'POST /shop/demo': async () => () => ask('POST', '/shop/demo'),
  'GET /access/me': async () => () => ask('GET', '/access/me'),
  'POST /access/first': async () => () => ask('POST', '/access/first', OWNER),
  'POST /access/sign-in': async () => () => outside.ask('POST', '/access/sign-in', OWNER),
  'POST /access/redeem': async () => {
    const { link } = (await ask('POST', '/access/codes', { place: '/' })).body as { link: string };
    return () => outside.ask('POST', '/access/redeem', { token: link.split('#')[1] });
  },
  'POST /access/sign-out': async () => {
    await outside.ask('POST', '/access/sign-in', OWNER);
    return () => outside.ask('POST', '/access/sign-out');
  },
  'PUT /access/passphrase': async () => {
    await outside.ask('POST', '/access/sign-in', OWNER);
    return () => outside.ask('PUT', '/access/passphrase', { now: OWNER.passphrase, passphrase: OWNER.passphrase });
  },
  'GET /access/people': async () => () => ask('GET', '/access/people'),
  'POST /access/people': async () => () => ask('POST', '/access/people', staff()),
  'PUT /access/people/:id': async () => {
    const { id } = (await ask('POST', '/access/people', staff())).body;
    return () => ask('PUT', `/access/people/${id}`, { role: 'counter', passphrase: 'another one of theirs' });
  },
  'DELETE /access/people/:id': async () => {
    const { id } = (await ask('POST', '/access/people', staff())).body;
    return () => ask('DELETE', `/access/people/${id}`);
  },
  'GET /access/devices': async () => () => ask('GET', '/access/devices'),
  'DELETE /access/devices/:id': async () => {
    await outside.ask('POST', '/access/sign-in', OWNER);
    const { devices } = (await ask('GET', '/access/devices')).body;
    return () => ask('DELETE', `/access/devices/${devices[0].id}`);
  },
  'GET /access/audit': async () => () => ask('GET', '/access/audit?limit=200'),
  'POST /access/codes': async () => () => ask('POST', '/access/codes', { place: '/' }),
  'GET /access/codes/:id': async () => () => ask('GET', `/access/codes/${randomUUID()}`),
  'DELETE /access/codes/:id': async () => () => ask('DELETE', `/access/codes/${randomUUID()}`),
  'GET /access/feeds': async () => () => ask('GET', '/access/feeds'),
  'POST /access/feeds': async () => () => ask('POST', '/access/feeds', { label: 'Phone' }),
  'DELETE /access/feeds/:id': async () => {
    const { id } = (await ask('POST', '/access/feeds', { label: 'Phone' })).body;
    return () => ask('DELETE', `/access/feeds/${id}`);
  },
  'GET /access/feed/:token': async () => {
    const { link } = (await ask('POST', '/access/feeds', { label: 'Phone' })).body as { link: string };
    return () => ask('GET', link.slice(link.indexOf('/access/')));
  },
  'GET /access/sharing': async () => () => ask('GET', '/access/sharing'),
  'PUT /access/sharing': async () => () => ask('PUT', '/access/sharing', { on: true }),
  'GET /vehicles/': async () => () => ask('GET', '/vehicles?search=vehicle&limit=50'),
  'GET /vehicles/deleted': async () => () => ask('GET', '/vehicles/deleted'),
  'POST /vehicles/': async () => () => ask('POST', '/vehicles', { name: 'Loader', notes: 'n'.repeat(2000) }),
  'GET /vehicles/:id': async () => {
    const { id } = await plate();
    return () => ask('GET', `/vehicles/${id}`);
  },
  'PUT /vehicles/:id': async () => {
    const { id, revision, name } = await newVehicle();
    return () => ask('PUT', `/vehicles/${id}`, { revision, saveId: randomUUID(), name, notes: 'Front yard' });
  },
  'POST /vehicles/:id/duplicate': async () => {
    const { vehicleId } = await newDrive();
    return () => ask('POST', `/vehicles/${vehicleId}/duplicate`);
  },
  'DELETE /vehicles/:id': async () => {
    const { id } = await newVehicle();
    return () => ask('DELETE', `/vehicles/${id}`);
  },
  'POST /vehicles/:id/restore': async () => {
    const { id } = await newVehicle();
    await ask('DELETE', `/vehicles/${id}`);
    return () => ask('POST', `/vehicles/${id}/restore`);
  },
  'GET /drives/': async () => () => ask('GET', '/drives?search=drive&limit=100'),
  'GET /drives/deleted': async () => () => ask('GET', '/drives/deleted'),
  'POST /drives/': async () => {
    const { id } = await newVehicle();
    return () => ask('POST', '/drives', { vehicleId: id, document: LARGEST });
  },
  'GET /drives/:id': async () => {
    const { id } = await newDrive(LARGEST);
    return () => ask('GET', `/drives/${id}`);
  },
  'PATCH /drives/:id': async () => {
    const { id, document } = await newDrive();
    const changes = changesBetween(document as Drive, LARGEST);
    return () => ask('PATCH', `/drives/${id}`, { revision: 1, saveId: randomUUID(), changes });
  },
  'GET /drives/:id/versions': async () => {
    const { id, document } = await newDrive();
    const changes = changesBetween(document as Drive, LARGEST);
    await ask('PATCH', `/drives/${id}`, { revision: 1, saveId: randomUUID(), changes });
    return () => ask('GET', `/drives/${id}/versions?after=1`);
  },
  'GET /drives/:id/past': async () => {
    const { id } = await newDrive(LARGEST);
    return () => ask('GET', `/drives/${id}/past`);
  },
  'GET /drives/:id/past/:revision': async () => {
    const { id } = await newDrive(LARGEST);
    return () => ask('GET', `/drives/${id}/past/1`);
  },
  'GET /keep/': async () => () => ask('GET', '/keep'),
  'GET /keep/age': async () => () => ask('GET', '/keep/age'),
  'PUT /keep/folder': async () => () => ask('PUT', '/keep/folder', { folder: backupFolder }),
  // To its end, not only to its beginning.
  'POST /keep/backups': async () => async () => {
    const begun = await ask('POST', '/keep/backups');
    for (let tries = 0; tries < 600; tries += 1) {
      const { passed, problem, files } = (await ask('GET', '/keep')).body.backups;
      if (passed === null && problem === null && files.length > 0) return begun;
      if (problem !== null) throw new Error(problem as string);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error('the backup did not end');
  },
  'DELETE /keep/backups': async () => () => ask('DELETE', '/keep/backups'),
  'GET /keep/backups/:name': async () => {
    const name = 'emery-2026-01-01T00-00-00Z.zip';
    writeFileSync(path.join(backupFolder, name), randomBytes(20_000_000));
    return () => ask('GET', `/keep/backups/${name}`);
  },
  'PUT /drives/:id/vehicle': async () => {
    const [{ id }, to] = [await newDrive(), await newVehicle()];
    return () => ask('PUT', `/drives/${id}/vehicle`, { vehicleId: to.id });
  },
  'POST /drives/:id/duplicate': async () => {
    const { id } = await newDrive(LARGEST);
    return () => ask('POST', `/drives/${id}/duplicate`);
  },
  'DELETE /drives/:id': async () => {
    const { id } = await newDrive();
    return () => ask('DELETE', `/drives/${id}`);
  },
  'POST /drives/:id/restore': async () => {
    const { id } = await newDrive();
    await ask('DELETE', `/drives/${id}`);
    return () => ask('POST', `/drives/${id}/restore`);
  },
  'POST /photos/': async () => {
    const bytes = await photo();
    return () => ask('POST', '/photos', new Uint8Array(bytes), 'image/jpeg');
  },
  'GET /photos/:hash': async () => {
    const { hash } = (await ask('POST', '/photos', new Uint8Array(await photo()), 'image/jpeg')).body;
    return () => ask('GET', `/photos/${hash}`);
  },
  'GET /stock/': async () => () => ask('GET', '/stock?section=PK&limit=500'),
  'GET /stock/lengths': async () => () => ask('GET', '/stock/lengths?section=PK&ribs=9'),
  'GET /stock/file': async () => () => ask('GET', '/stock/file'),
  'POST /stock/': async () => {
    const list = many(3000, (k) => ({ section: 'PK', ribs: '9', length: String(1000 + (k % 1500)), shelf: '2' }));
    return () => ask('POST', '/stock', { replace: true, ...list });
  },
  'DELETE /stock/:id': async () => {
    const { id } = (await ask('GET', '/stock?limit=1')).body.belts[0];
    return () => ask('DELETE', `/stock/${id}`);
  },
  'GET /bands/': async () => () => ask('GET', '/bands'),
  'PUT /bands/:role': async () => () => ask('PUT', '/bands/alternator', { least: 1500, continuous: 9000, burst: null }),
  'DELETE /bands/:role': async () => () => ask('DELETE', '/bands/alternator'),
  'GET /pulleys/': async () => () => ask('GET', '/pulleys'),
  'POST /pulleys/': async () => () =>
    ask('POST', '/pulleys', { label: 'Fan', role: 'fan', surface: 'vee', diameter: 130 }),
  'DELETE /pulleys/:id': async () => {
    const { id } = (await ask('POST', '/pulleys', { label: 'Fan', role: 'fan', surface: 'vee', diameter: 130 })).body;
    return () => ask('DELETE', `/pulleys/${id}`);
  },
  'GET /parts/': async () => () => ask('GET', '/parts'),
  'GET /parts/file': async () => () => ask('GET', '/parts/file'),
  'POST /parts/': async () => {
    const list = many(150, (k) => ({ label: `Spacer ${k}`, kind: 'spacer', depth: '2.5', count: '3' }));
    return () => ask('POST', '/parts', { replace: true, ...list });
  },
  'DELETE /parts/:id': async () => {
    await ask('POST', '/parts', { replace: true, ...many(1, () => ({ label: 'One', kind: 'spacer', depth: '2.5' })) });
    const { id } = (await ask('GET', '/parts')).body.parts[0];
    return () => ask('DELETE', `/parts/${id}`);
  },
  'GET /records/due': async () => () => ask('GET', '/records/due?limit=100'),
  'GET /records/due.ics': async () => () => ask('GET', '/records/due.ics'),
  'GET /records/belts': async () => () => ask('GET', '/records/belts?limit=100'),
  'GET /records/belts.csv': async () => () => ask('GET', '/records/belts.csv'),
  'GET /records/belts.json': async () => () => ask('GET', '/records/belts.json'),
  'POST /records/history': async () => {
    const list = many(500, (k) => ({
      vehicle: `B ${k}`,
      number: `N ${k}`,
      fitted: '2020-01-01',
      'taken off': '2021-01-01',
    }));
    return () => ask('POST', '/records/history', { ...list, look: false });
  },
  'GET /records/lives': async () => () => ask('GET', '/records/lives'),
  'GET /records/growth': async () => () => ask('GET', '/records/growth?section=PK'),
  'GET /records/': async () => () => ask('GET', '/records?limit=1000'),
  'GET /records/file.csv': async () => () => ask('GET', '/records/file.csv'),
  'GET /records/file.json': async () => () => ask('GET', '/records/file.json'),
  'GET /jobs/': async () => () => ask('GET', '/jobs'),
  'POST /jobs/': async () => {
    const job = await newJob();
    return () => ask('POST', '/jobs', job);
  },
  'GET /jobs/pace': async () => () => ask('GET', '/jobs/pace'),
  'GET /jobs/:id': async () => {
    const { id } = await begun();
    return () => ask('GET', `/jobs/${id}`);
  },
  'GET /jobs/:id/events': async () => {
    const { id } = await begun();
    return () => ask('GET', `/jobs/${id}/events?after=0`);
  },
  'POST /jobs/:id/events': async () => {
    const { id } = await begun();
    const events = Array.from({ length: 500 }, (_, k) => event({ kind: 'note', text: `bolt ${k} was stiff` }));
    return () => ask('POST', `/jobs/${id}/events`, { events });
  },
  'POST /jobs/:id/sign-off': async () => {
    const { id } = await begun();
    return () => ask('POST', `/jobs/${id}/sign-off`, { by: 'Ann', at: NOW });
  },
  'DELETE /jobs/:id': async () => {
    const { id } = await begun();
    return () => ask('DELETE', `/jobs/${id}`);
  },
  // It never ends: what counts is that it begins.
  'GET /live/': async () => async () => {
    const stop = new AbortController();
    const { status } = await fetch(`${base}/live?device=${randomUUID()}`, { signal: stop.signal });
    stop.abort();
    return { status, type: '', body: '' };
  },
  'GET /live/here': async () => () => ask('GET', '/live/here'),
  'PUT /live/here/:device': async () => () => ask('PUT', `/live/here/${randomUUID()}`, HERE),
  'POST /live/here/:device/point': async () => () =>
    ask('POST', `/live/here/${randomUUID()}/point`, { drive: randomUUID(), at: { x: 1, y: 2 }, part: '' }),
  'POST /live/takes': async () => () => ask('POST', '/live/takes', TAKE),
  'GET /live/takes/:id': async () => {
    const { id } = (await ask('POST', '/live/takes', TAKE)).body;
    return () => ask('GET', `/live/takes/${id}`);
  },
  'PATCH /live/takes/:id': async () => {
    const { id } = (await ask('POST', '/live/takes', TAKE)).body;
    return () => ask('PATCH', `/live/takes/${id}`, { state: 'seen' });
  },
  'PUT /live/takes/:id/bytes': async () => {
    const { id } = (await ask('POST', '/live/takes', TAKE)).body;
    return () => ask('PUT', `/live/takes/${id}/bytes`, new Uint8Array(4_000_000), 'audio/wav');
  },
  'GET /live/takes/:id/bytes': async () => {
    const { id } = (await ask('POST', '/live/takes', TAKE)).body;
    await ask('PUT', `/live/takes/${id}/bytes`, new Uint8Array(4_000_000), 'audio/wav');
    return () => ask('GET', `/live/takes/${id}/bytes`);
  },
  'GET /drives/:id/file': async () => {
    const { id } = await newDrive();
    return () => ask('GET', `/drives/${id}/file`);
  },
  'GET /export': async () => () => ask('GET', '/export'),
  'POST /import': async () => () => ask('POST', '/import', { files: files(20) }),
  'POST /import/archive': async () => {
    const zip = zipSync(Object.fromEntries(files(100).map(({ name, text }) => [`Fleet/${name}`, strToU8(text)])));
    return () => ask('POST', '/import/archive', zip, 'application/zip');
  },
};

const JOB = randomUUID();
const zipOf = (files: Record<string, string>) =>
  zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])), { level: 9 });
const body = (text: string) => new TextEncoder().encode(text);
const SHOP_FILE = JSON.stringify({
  format: 'emery-shop',
  version: 1,
  name: 'Yard',
  unit: 'mm',
  bands: [],
  pulleys: [],
  parts: [],
});

/** What is sent to do harm, or is as large as is let in: each leaves the loop to others as well. */
const HEAVY: Record<string, () => Promise<Answer>> = {
  '0.3 MB of empty events': () => ask('POST', `/jobs/${JOB}/events`, body(`{"events":[${'{},'.repeat(99_999)}{}]}`)),
  '2 MB of empty events': () => ask('POST', `/jobs/${JOB}/events`, body(`{"events":[${'{},'.repeat(650_000)}{}]}`)),
  '500 events that are wrong everywhere': () =>
    ask('POST', `/jobs/${JOB}/events`, { events: Array(500).fill({ kind: 'plan', step: { a: 1 }, at: 5 }) }),
  '0.6 MB of empty steps': () =>
    ask('POST', '/jobs', body(`{"id":"${JOB}","sheet":{"steps":[${'{},'.repeat(199_999)}{}]}}`)),
  '3,000 steps': () => {
    const steps = Array.from({ length: 3000 }, (_, k) => ({ ...sheet.steps[0], id: `s${k}` }));
    return ask('POST', '/jobs', { id: JOB, driveId: JOB, by: '', at: NOW, sheet: { ...sheet, steps } });
  },
  'a ZIP of 14 kB that holds 14 MB of lists': () =>
    ask(
      'POST',
      '/import/archive',
      zipOf({ 'a.emery.json': `{"a":[${'[],'.repeat(4_700_000)}[]]}` }),
      'application/zip',
    ),
  'a ZIP of 0.24 MB that holds 200 MB of vehicles': () => {
    const line = `${JSON.stringify({ id: JOB, name: 'a'.repeat(100), plate: '', revision: 1, updatedAt: NOW })}\n`;
    const zip = zipOf({ 'shop.json': SHOP_FILE, 'vehicles.jsonl': line.repeat(200_000_000 / line.length) });
    return ask('POST', '/import/archive', zip, 'application/zip');
  },
  'a ZIP of one line of 60 MB': () =>
    ask(
      'POST',
      '/import/archive',
      zipOf({ 'shop.json': SHOP_FILE, 'vehicles.jsonl': ' '.repeat(60_000_000) }),
      'application/zip',
    ),
  'a ZIP with a job of empty events': () => {
    const job = `{"format":"emery-job","version":1,"id":"${JOB}","events":[${'{},'.repeat(999_999)}{}]}`;
    return ask(
      'POST',
      '/import/archive',
      zipOf({ 'shop.json': SHOP_FILE, [`jobs/${JOB}.json`]: job }),
      'application/zip',
    );
  },
  'a ZIP with more pulleys than there are': () => {
    const shop = SHOP_FILE.replace('"pulleys":[]', `"pulleys":[${'{},'.repeat(300_000)}{}]`);
    return ask('POST', '/import/archive', zipOf({ 'shop.json': shop }), 'application/zip');
  },
  '400 ordinary drive files': () => ask('POST', '/import', { files: files(400) }),
  '50,000 belts': () => {
    const list = many(50_000, (k) => ({
      section: 'PK',
      ribs: '6',
      length: String(1000 + (k % 1500)),
      code: `C ${k}`,
      shelf: '2',
    }));
    return ask('POST', '/stock', { replace: true, ...list });
  },
  'the same 50,000 once more, with other prices': () => {
    const list = many(50_000, (k) => ({
      section: 'PK',
      ribs: '6',
      length: String(1000 + (k % 1500)),
      code: `C ${k}`,
      price: '9',
    }));
    return ask('POST', '/stock', { replace: true, ...list });
  },
  'a file of 50,000 belts': () => ask('GET', '/stock/file'),
  'the shop with 50,000 belts': () => ask('GET', '/export'),
};

interface Layer {
  route?: { path: string; methods: Record<string, boolean> };
}

/** All that the server answers, as it was put together. */
function kinds(): string[] {
  const data = { getRepository: () => ({}), manager: {} } as unknown as DataSource;
  return RESOURCES.flatMap(({ path: at, routes }) =>
    (routes(data).stack as unknown as Layer[]).flatMap(({ route }) =>
      route ? Object.keys(route.methods).map((method) => `${method.toUpperCase()} ${at}${route.path}`) : [],
    ),
  );
}

test('every kind of request that the server answers is among them', () => {
  expect(Object.keys(KINDS).sort()).toEqual(kinds().sort());
});

test('what is read a page at a time comes whole, each once and in its order', async () => {
  for (const [what, list] of [
    ['records', '/records/file.json'],
    ['belts', '/records/belts.json'],
  ] as const) {
    const { total } = (await ask('GET', what === 'belts' ? '/records/belts?limit=1' : '/records?limit=1')).body;
    const rows = (await ask('GET', list)).body[what] as { id: number; at: string; ranKm: number }[];
    expect(total).toBeGreaterThan(500);
    expect([rows.length, new Set(rows.map(({ id }) => id)).size]).toEqual([total, total]);
    const order = rows.map(({ at, ranKm }) => (what === 'belts' ? ranKm : Date.parse(at)));
    expect(order.slice(1).every((value, k) => value <= order[k]!)).toBe(true);
    const csv = (await ask('GET', list.replace('json', 'csv'))).body as string;
    expect(csv.trim().split(/\r\n(?=Vehicle|[A-Z])/).length).toBeGreaterThan(total);
  }
});

test('the probe sees a loop that is held', async () => {
  await fetch(`${door}/hold`, { method: 'POST' });
  expect(await held()).toBeGreaterThan(1.5 * MOST_MS);
});

test.each(Object.keys(KINDS))('%s leaves the loop', async (kind) => {
  const times: number[] = [];
  // Once is enough where it stays under; the first time a kind is asked for, its code is still to be read.
  while (times.length < TRIES && !times.some((ms) => ms < MOST_MS)) {
    const send = await KINDS[kind]!();
    await held();
    const { status, body } = await send();
    times.push(await held());
    if (status >= 400 && !ONCE.includes(kind)) throw new Error(JSON.stringify(body).slice(0, 500));
  }
  if (process.env['EMERY_LAG']) process.stderr.write(`${kind} ${times.map((ms) => ms.toFixed(1)).join(' ')}\n`);
  expect(Math.min(...times)).toBeLessThan(MOST_MS);
});

test.each(Object.keys(HEAVY))(
  '%s: the loop is left to others',
  async (what) => {
    const times: number[] = [];
    while (times.length < TRIES && !times.some((ms) => ms < MOST_MS)) {
      await held();
      const { status, body: said } = await HEAVY[what]!();
      times.push(await held());
      if (status >= 500) throw new Error(JSON.stringify(said).slice(0, 500));
      if (process.env['EMERY_LAG']) process.stderr.write(`${what} ${status} ${times.at(-1)!.toFixed(1)}\n`);
    }
    expect(Math.min(...times)).toBeLessThan(MOST_MS);
  },
  PATIENCE_MS,
);
