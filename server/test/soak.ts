import { spawnSync } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { bringList, cardOf } from '@emery/core/job';
import { DEMO } from '../../core/test/demo';

/*
 * Run by `npm run soak`: so many changes to a shop of its own, four at a time, while its server, its database and the
 * database's keeper are killed at random, and the whole of it is backed up and restored in between. Each change is sent
 * until it is acknowledged; what was acknowledged is written down here, apart, and held against the shop at the end and
 * after each restore. Ends with exit code 1 where anything is lost, torn or more than it should be.
 */
const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const [changes = 1000, restores = Math.max(1, Math.floor(changes / 300))] = process.argv.slice(2).map(Number);
const state = mkdtempSync(path.join(tmpdir(), 'emery-soak-'));
const own = path.join(process.env['EMERY_STATE'] ?? path.join(ROOT, '.emery'), 'builds');
// What was built from this source already is not built again.
if (existsSync(own)) symlinkSync(own, path.join(state, 'builds'));
process.env['EMERY_STATE'] = state;

/** Plain Node, and no part of what is checked here. */
const LIB = '../../scripts/lib';
const DATABASE = path.join(state, 'database');
const { openDatabase } = (await import(`${LIB}/database.mjs`)) as {
  openDatabase: () => Promise<{ url: (name: string) => string; close: () => Promise<boolean> }>;
};
interface Server {
  port: number;
  pid: number;
  ended: Promise<unknown>;
  kill: (signal: string) => void;
  stop: () => Promise<void>;
}
const { startServer } = (await import(`${LIB}/serve.mjs`)) as unknown as {
  startServer: (options: object) => Promise<Server>;
};

let database: Awaited<ReturnType<typeof openDatabase>>;
let server: Server;
let port = 0;
let isOpen = false;
const kills = { server: 0, database: 0, keeper: 0 };

async function open(): Promise<void> {
  database = await openDatabase();
  isOpen = true;
  await run();
}

/** Starts the server, again on its port where it had one, and again whenever it ends while the shop is open. */
async function run(): Promise<void> {
  server = await startServer({
    databaseUrl: database.url('emery'),
    port,
    logs: path.join(state, 'logs'),
    shop: 'empty',
  });
  ({ port } = server);
  void server.ended.then(async () => {
    for (let tries = 0; isOpen && tries < 50; tries += 1)
      try {
        return await run();
      } catch {
        await pause(200);
      }
  });
}

async function close(): Promise<void> {
  isOpen = false;
  await server.stop();
  await database.close();
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Processes whose command line holds all of these. */
function processes(...parts: string[]): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((name) => {
      try {
        const line = readFileSync(`/proc/${name}/cmdline`, 'utf8');
        return parts.every((part) => line.includes(part));
      } catch {
        return false;
      }
    })
    .map(Number);
}

/** Kills one of the three, as a power switch would. */
function killOne(): void {
  const what = (['server', 'server', 'database', 'keeper'] as const)[Math.floor(Math.random() * 4)]!;
  const pids = {
    server: [server.pid],
    database: processes('mariadbd', `--datadir=${path.join(DATABASE, 'data')}`),
    keeper: processes('database-keeper.mjs', DATABASE),
  }[what];
  for (const pid of pids)
    try {
      process.kill(pid, 'SIGKILL');
      kills[what] += 1;
    } catch {
      // It is just ending.
    }
}

/** What the shop is to hold, by what it acknowledged. */
const ledger = {
  vehicles: new Map<string, { name: string; revision: number }>(),
  drives: new Map<string, { name: string; revision: number }>(),
  jobs: new Map<string, { events: Set<string>; isSigned: boolean }>(),
  pictures: new Map<string, string>(),
};
let unanswered = 0;

/** Sends a request until it is answered for good; anything but a server that is away ends the run. */
async function send(method: string, address: string, body?: unknown, type = 'application/json'): Promise<unknown> {
  for (const until = Date.now() + 120_000; Date.now() < until;) {
    try {
      const response = await fetch(`http://127.0.0.1:${port}/api${address}`, {
        method,
        ...(body !== undefined && { headers: { 'content-type': type } }),
        ...(body !== undefined && { body: (body instanceof Uint8Array ? body : JSON.stringify(body)) as string }),
        signal: AbortSignal.timeout(20_000),
      });
      const text = await response.text();
      if (response.ok) return text === '' ? null : JSON.parse(text);
      if (response.status !== 503) throw new Refused(`${method} ${address}: ${response.status} ${text.slice(0, 300)}`);
    } catch (error) {
      if (error instanceof Refused) throw error;
    }
    unanswered += 1;
    await pause(100 + Math.random() * 200);
  }
  throw new Refused(`${method} ${address} was not answered for two minutes`);
}
class Refused extends Error {}

const anyOf = <T>(map: ReadonlyMap<string, T>): [string, T] | undefined => {
  const all = [...map];
  return all[Math.floor(Math.random() * all.length)];
};
const busy = new Set<string>();
let stockId = 0;
const SHELF = 9000;

/** The kinds of change, each with what it writes down once it is acknowledged. */
const KINDS: readonly (() => Promise<void>)[] = [
  async () => {
    const [id, name] = [randomUUID(), `Vehicle ${randomUUID().slice(0, 8)}`];
    const made = (await send('POST', '/vehicles', { id, name, odometer: 10 })) as { id: string; revision: number };
    ledger.vehicles.set(made.id, { name, revision: made.revision });
  },
  async () => {
    const [vehicleId] = anyOf(ledger.vehicles) ?? [];
    if (vehicleId === undefined) return;
    const [id, name] = [randomUUID(), `Drive ${randomUUID().slice(0, 8)}`];
    await send('POST', '/drives', { id, vehicleId, document: { ...DEMO.groomer, name } });
    ledger.drives.set(id, { name, revision: 1 });
  },
  ...Array.from({ length: 3 }, () => saveDrive),
  async () => {
    const [driveId] = anyOf(ledger.drives) ?? [];
    if (driveId === undefined) return;
    const { order, steps } = cardOf(DEMO.groomer);
    const sheet = { drive: DEMO.groomer, unit: 'mm', belt: null, off: order.off, on: order.on, steps };
    const body = { id: randomUUID(), driveId, by: 'Ann', at: new Date().toISOString() };
    await send('POST', '/jobs', { ...body, sheet: { ...sheet, bring: bringList(DEMO.groomer) } });
    ledger.jobs.set(body.id, { events: new Set(), isSigned: false });
  },
  ...Array.from({ length: 2 }, () => tick),
  signOff,
  async () => {
    const [width, height] = [8 + Math.floor(Math.random() * 40), 8 + Math.floor(Math.random() * 40)];
    const background = { r: Math.floor(Math.random() * 256), g: Math.floor(Math.random() * 256), b: 90 };
    const bytes = await sharp({ create: { width, height, channels: 3, background } })
      .jpeg()
      .toBuffer();
    const { hash } = (await send('POST', '/photos', new Uint8Array(bytes), 'image/jpeg')) as { hash: string };
    ledger.pictures.set(hash, hash);
  },
  async () => {
    const [id, name] = [randomUUID(), `Brought in ${randomUUID().slice(0, 8)}`];
    const record = { id, revision: 1, updatedAt: new Date().toISOString() };
    const text = JSON.stringify({ ...DEMO.groomer, name, record, vehicle: { name: 'Import lorry' } });
    await send('POST', '/import', { files: [{ name: 'a.emery.json', text }] });
    ledger.drives.set(id, { name, revision: 1 });
  },
];

/** Nobody else works at what is held meanwhile: what is expected of it is then one thing. */
async function held(id: string | undefined, work: (id: string) => Promise<void>): Promise<void> {
  if (id === undefined || busy.has(id)) return;
  busy.add(id);
  try {
    await work(id);
  } finally {
    busy.delete(id);
  }
}

async function saveDrive(): Promise<void> {
  await held(anyOf(ledger.drives)?.[0], async (id) => {
    const was = ledger.drives.get(id)!;
    const now = `Drive ${randomUUID().slice(0, 8)}`;
    const body = { revision: was.revision, saveId: randomUUID(), changes: [{ at: ['name'], was: was.name, now }] };
    const { revision } = (await send('PATCH', `/drives/${id}`, body)) as { revision: number };
    if (revision !== was.revision + 1) throw new Refused(`drive ${id}: saved as ${revision} after ${was.revision}`);
    ledger.drives.set(id, { name: now, revision });
  });
}

async function tick(): Promise<void> {
  const open = [...ledger.jobs].filter(([, { isSigned }]) => !isSigned);
  await held(open[Math.floor(Math.random() * open.length)]?.[0], async (id) => {
    const event = { id: randomUUID(), at: new Date().toISOString(), by: 'Ann', kind: 'note', text: 'a tick' };
    await send('POST', `/jobs/${id}/events`, { events: [event] });
    ledger.jobs.get(id)!.events.add(event.id);
  });
}

async function signOff(): Promise<void> {
  const open = [...ledger.jobs].filter(([, { isSigned }]) => !isSigned);
  await held(open[0]?.[0], async (id) => {
    const at = new Date().toISOString();
    const part = { id: randomUUID(), at, by: 'Ann', kind: 'part', name: 'SOAK 1', count: 1, stock: stockId };
    await send('POST', `/jobs/${id}/events`, { events: [part] });
    ledger.jobs.get(id)!.events.add(part.id);
    await send('POST', `/jobs/${id}/sign-off`, { by: 'Ann', at });
    ledger.jobs.get(id)!.isSigned = true;
  });
}

/** Holds the shop against all that was acknowledged; what is wrong is told, a line each. */
async function wrong(): Promise<string[]> {
  const found: string[] = [];
  for (const [id, { name, revision }] of ledger.drives) {
    const drive = (await send('GET', `/drives/${id}`)) as { revision: number; document: { name: string } };
    if (drive.document.name !== name || drive.revision !== revision)
      found.push(`drive ${id} is ${drive.document.name} (${drive.revision}), not ${name} (${revision})`);
    const past = (await send('GET', `/drives/${id}/past/${revision}`)) as { document: { name: string } };
    if (past.document.name !== name) found.push(`drive ${id}: its version ${revision} is ${past.document.name}`);
  }
  for (const [id, { name }] of ledger.vehicles) {
    const vehicle = (await send('GET', `/vehicles/${id}`)) as { name: string };
    if (vehicle.name !== name) found.push(`vehicle ${id} is ${vehicle.name}, not ${name}`);
  }
  for (const [id, { events, isSigned }] of ledger.jobs) {
    const job = (await send('GET', `/jobs/${id}`)) as { events: { id: string }[]; signedAt: string | null };
    const there = job.events.map((event) => event.id);
    if (new Set(there).size !== there.length) found.push(`job ${id} has an event twice`);
    for (const event of events) if (!there.includes(event)) found.push(`job ${id} has lost event ${event}`);
    if ((job.signedAt !== null) !== isSigned) found.push(`job ${id} is ${job.signedAt ?? 'not signed off'}`);
  }
  for (const hash of ledger.pictures.keys()) {
    const response = await fetch(`http://127.0.0.1:${port}/api/photos/${hash}`);
    const sum = createHash('sha256')
      .update(Buffer.from(await response.arrayBuffer()))
      .digest('hex');
    if (sum !== hash) found.push(`picture ${hash} is ${response.status} ${sum}`);
  }
  const signed = [...ledger.jobs.values()].filter(({ isSigned }) => isSigned).length;
  const { belts } = (await send('GET', '/stock?search=SOAK')) as { belts: { shelf: number }[] };
  if (belts[0]?.shelf !== SHELF - signed) found.push(`the shelf has ${belts[0]?.shelf}, not ${SHELF - signed}`);
  return found;
}

function command(...args: string[]): void {
  const { status, stderr } = spawnSync(process.execPath, args, { cwd: ROOT, encoding: 'utf8' });
  if (status !== 0) throw new Refused(`${args.join(' ')}: ${stderr}`);
}

/** Works at the shop until so many more changes were acknowledged. */
async function work(upTo: number): Promise<void> {
  let killing = true;
  const killer = (async () => {
    for (let next = done + 8; killing; await pause(20)) {
      if (done < next) continue;
      killOne();
      // Now and then another while it is still getting up.
      next = done + Math.floor(Math.random() * 30);
      await pause(Math.random() * 400);
    }
  })();
  const worker = async () => {
    while (done < upTo) {
      await KINDS[Math.floor(Math.random() * KINDS.length)]!();
      done += 1;
    }
  };
  try {
    await Promise.all([worker(), worker(), worker(), worker()]);
  } finally {
    killing = false;
    await killer;
  }
}

let done = 0;
const started = Date.now();
let found: string[] = [];
try {
  await open();
  const row = { section: 'PK', ribs: '6', length: '1735', code: 'SOAK 1', shelf: String(SHELF) };
  await send('POST', '/stock', { replace: true, rows: [row] });
  stockId = ((await send('GET', '/stock?search=SOAK')) as { belts: { id: number }[] }).belts[0]!.id;
  for (let k = 1; k <= restores + 1 && found.length === 0; k += 1) {
    await work(Math.round((changes * k) / (restores + 1)));
    found = await wrong();
    if (k > restores || found.length > 0) break;
    const file = path.join(state, `soak-${k}.zip`);
    // While it runs; then it is stopped, and what stands there is another shop, restored.
    command('scripts/backup.mjs', file);
    await close();
    command('scripts/restore.mjs', file);
    await open();
    found = await wrong();
  }
  command('scripts/doctor.mjs');
} catch (error) {
  found.push((error as Error).message);
} finally {
  await close().catch(() => undefined);
}
const counts = `${ledger.vehicles.size} vehicles, ${ledger.drives.size} drives, ${ledger.jobs.size} jobs, ${ledger.pictures.size} pictures`;
process.stdout.write(
  `${done} changes acknowledged in ${Math.round((Date.now() - started) / 1000)} s (${counts}); killed: server ${kills.server}, ` +
    `database ${kills.database}, keeper ${kills.keeper} times; ${unanswered} tries unanswered; ${restores} restores.\n`,
);
for (const line of found) process.stdout.write(`  ${line}\n`);
process.stdout.write(
  found.length === 0 ? 'Nothing is lost, torn or too much.\n' : `${found.length} wrong. It is in ${state}\n`,
);
if (found.length === 0) rmSync(state, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
process.exit(found.length === 0 ? 0 : 1);
