import { randomUUID } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { draws, THOROUGH } from '../core/test/draws';
import { DEMO } from '../core/test/demo';
import { bringList, cardOf } from '@emery/core/job';
import { type Drive, writeDrive } from '@emery/core/drive';
import { changesBetween } from '@emery/core/together';
import { rememberVehicles } from './records/remember';
import { type Answer, running, type Running } from './test/running';

/*
 * Every way to write into a shop, tried against every other at the same moment on the same vehicle. What comes of it
 * must be what would have come of one after the other, in one of the two orders: answers, documents, jobs, shelf, and
 * what is remembered. The orders are tried as well, so the test knows nothing of what the routes do.
 */
const TIMES = draws(25);
/** Up to so long one of the two waits, ms: about as long as the other takes. */
const APART_MS = 12;

let shop: Running;
beforeAll(async () => {
  shop = await running('empty');
});
afterAll(() => shop.stop());

const NOW = '2026-11-26T10:00:00.000Z';
const [FIRST, SECOND] = DEMO.pickup.belts.map(({ id }) => id) as [string, string];

/** What two requests meet over. */
interface Place {
  vehicle: string;
  other: string;
  gone: string;
  drive: string;
  beside: string;
  hidden: string;
  document: Drive;
  /** Two jobs on the drive, each with another belt changed and the same belt off the shelf. */
  jobs: [string, string];
  stock: number;
  plate: string;
}

const ok = async (method: string, where: string, body?: unknown) => {
  const answer = await shop.ask(method, where, body);
  if (answer.status >= 300) throw new Error(`${method} ${where}: ${JSON.stringify(answer.body)}`);
  return answer.body;
};
const event = (more: object) => ({ id: randomUUID(), at: NOW, by: 'Ann', ...more });
const sheet = (() => {
  const { order, steps } = cardOf(DEMO.pickup);
  const rest = { off: order.off, on: order.on, steps: steps.slice(0, 4), bring: bringList(DEMO.pickup) };
  return { drive: DEMO.pickup, unit: 'mm', belt: null, ...rest };
})();

/** One place, made by way of the server. */
async function madeByHand(): Promise<Place> {
  const plate = 'P 0';
  const [vehicle, other, gone] = [randomUUID(), randomUUID(), randomUUID()];
  for (const [id, name] of [
    [vehicle, 'Loader'],
    [other, 'Gritter'],
    [gone, 'Sold'],
  ])
    await ok('POST', '/vehicles', { id, name, plate, odometer: 1000, notes: plate });
  await ok('DELETE', `/vehicles/${gone}`);
  const drives: { id: string; document: Drive }[] = [];
  for (const name of ['Front', 'Beside', 'Hidden'])
    drives.push(
      (await ok('POST', '/drives', { vehicleId: vehicle, document: { ...DEMO.pickup, name } })) as (typeof drives)[0],
    );
  const [{ id: drive, document }, { id: beside }, { id: hidden }] = drives as [Place & { id: string }, never, never];
  await ok('DELETE', `/drives/${String(hidden)}`);
  await ok('POST', '/stock', { rows: [{ section: 'PK', ribs: '6', length: '1000', code: plate, shelf: '9' }] });
  const { belts } = (await ok('GET', '/stock')) as { belts: { id: number }[] };
  const stock = belts[0]!.id;
  const jobs: string[] = [];
  for (const [k, belt] of [FIRST, SECOND].entries()) {
    const id = randomUUID();
    await ok('POST', '/jobs', { id, driveId: drive, by: 'Ann', at: NOW, sheet });
    await ok('POST', `/jobs/${id}/events`, {
      events: [
        event({ kind: 'odometer', odometer: 9000 + k }),
        event({ kind: 'part', name: plate, count: 1, stock }),
        ...sheet.steps.map(({ id: step }) => event({ kind: 'tick', step, done: true })),
        event({ kind: 'belt', belt, fitted: 'new', why: 'worn', number: `N ${k}` }),
      ],
    });
    jobs.push(id);
  }
  const at = { vehicle, other, gone, drive, beside, hidden, document, stock, plate };
  return { ...at, jobs: jobs as [string, string] };
}

type Row = Record<string, unknown>;
const NUMBERED = ['job_event', 'due', 'belt_life', 'record'];
let first: { at: Place; tables: Map<string, Row[]> } | null = null;
let count = 0;

/** Another place that is just like the first, past the server: by way of it that would take longer than the test. */
async function made(): Promise<Place> {
  if (!first) {
    const at = await madeByHand();
    const tables = new Map<string, Row[]>();
    for (const table of ['vehicle', 'drive', 'drive_document', 'drive_memory', 'job', ...NUMBERED])
      tables.set(table, await shop.data.query<Row[]>(`SELECT * FROM ${table}`));
    for (const table of ['vehicle_search', 'drive_search'])
      tables.set(table, await shop.data.query<Row[]>(`SELECT * FROM ${table}`));
    first = { at, tables };
  }
  count += 1;
  // Lists that hold so many and no more start each time without what others put there.
  for (const table of ['part_at_hand', 'pulley_at_hand', 'speed_band']) await shop.data.query(`DELETE FROM ${table}`);
  await shop.data.query("UPDATE shop SET name = 'Shop'");
  const { at, tables } = first;
  const plate = `P ${count}`;
  const ids = new Map(
    [at.vehicle, at.other, at.gone, at.drive, at.beside, at.hidden, ...at.jobs].map((id) => [id, randomUUID()]),
  );
  const { insertId: stock } = await shop.data.query<{ insertId: number }>(
    'INSERT INTO stock_belt (section, ribs, lengthMm, code, price, shelf) VALUES (?)',
    [['PK', 6, 1000, plate, null, 9]],
  );
  const anew = (text: string) =>
    text
      .replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) => ids.get(id) ?? id)
      .replaceAll('P 0', plate)
      .replaceAll('p 0', plate.toLowerCase())
      .replaceAll(`"stock":${at.stock}}`, `"stock":${stock}}`);
  const cell = (value: unknown) =>
    typeof value === 'string' ? anew(value) : Buffer.isBuffer(value) ? Buffer.from(anew(value.toString())) : value;
  for (const [table, rows] of tables) {
    const columns = Object.keys(rows[0] ?? {}).filter(
      (column) => !(NUMBERED.includes(table) && ['seq', ...(table === 'job_event' ? [] : ['id'])].includes(column)),
    );
    if (rows.length > 0)
      await shop.data.query(`INSERT INTO ${table} (${columns.map((column) => `\`${column}\``).join()}) VALUES ?`, [
        rows.map((row) => columns.map((column) => cell(row[column]))),
      ]);
  }
  const [vehicle, other, gone, drive, beside, hidden, ...jobs] = [...ids.values()] as [
    ...[string, string, string, string, string, string],
    ...string[],
  ];
  return { ...at, vehicle, other, gone, drive, beside, hidden, stock, plate, jobs: jobs as [string, string] };
}

type Write = (at: Place) => () => Promise<Answer>;
const asks =
  (method: string, where: (at: Place) => string, body?: (at: Place) => unknown): Write =>
  (at) => {
    const sent = body?.(at);
    return () => shop.ask(method, where(at), sent);
  };
const withBelt = ({ document }: Place, number: string): Drive => ({
  ...document,
  belts: document.belts.map((belt) => ({ ...belt, care: { number, fittedAt: '2024-05-01', fittedOdometer: 500 } })),
});
const patch = (before: Drive, after: Drive) => ({
  ...{ revision: 1, saveId: randomUUID() },
  changes: changesBetween(before, after),
});
const vehicleFields = (at: Place) => ({ name: 'Loader', plate: at.plate, odometerUnit: 'km', notes: at.plate });

/** Every kind of write, by what it does. */
const WRITES: Record<string, Write> = {
  'drive saved': asks(
    'PATCH',
    ({ drive }) => `/drives/${drive}`,
    (at) => patch(at.document, { ...withBelt(at, 'TF 1'), name: 'Front, saved' }),
  ),
  'drive beside saved': asks(
    'PATCH',
    ({ beside }) => `/drives/${beside}`,
    (at) => patch({ ...at.document, name: 'Beside' }, { ...withBelt(at, 'TF 2'), name: 'Beside, saved' }),
  ),
  'vehicle saved': asks(
    'PUT',
    ({ vehicle }) => `/vehicles/${vehicle}`,
    (at) => ({
      ...{ revision: 1, saveId: randomUUID() },
      ...{ ...vehicleFields(at), name: 'Loader, saved', odometer: 5000 },
    }),
  ),
  'signed off': asks(
    'POST',
    ({ jobs }) => `/jobs/${jobs[0]}/sign-off`,
    () => ({ by: 'Ann', at: NOW }),
  ),
  'other job signed off': asks(
    'POST',
    ({ jobs }) => `/jobs/${jobs[1]}/sign-off`,
    () => ({ by: 'Bob', at: NOW }),
  ),
  ticked: asks(
    'POST',
    ({ jobs }) => `/jobs/${jobs[0]}/events`,
    () => ({
      events: [event({ kind: 'tick', step: sheet.steps[0]!.id, done: false })],
    }),
  ),
  'odometer read': asks(
    'POST',
    ({ jobs }) => `/jobs/${jobs[0]}/events`,
    () => ({
      events: [event({ kind: 'odometer', odometer: 12_000 })],
    }),
  ),
  'job dropped': asks('DELETE', ({ jobs }) => `/jobs/${jobs[0]}`),
  'job begun': asks(
    'POST',
    () => '/jobs',
    ({ drive }) => ({
      ...{ id: randomUUID(), driveId: drive, by: 'Ann', at: NOW, sheet },
    }),
  ),
  'drive moved': asks(
    'PUT',
    ({ drive }) => `/drives/${drive}/vehicle`,
    ({ other }) => ({ vehicleId: other }),
  ),
  'drive beside moved': asks(
    'PUT',
    ({ beside }) => `/drives/${beside}/vehicle`,
    ({ other }) => ({
      vehicleId: other,
    }),
  ),
  'drive made': asks(
    'POST',
    () => '/drives',
    (at) => ({
      vehicleId: at.vehicle,
      document: { ...withBelt(at, 'TF 3'), name: 'Made' },
    }),
  ),
  'drive copied': asks('POST', ({ drive }) => `/drives/${drive}/duplicate`),
  'drive deleted': asks('DELETE', ({ drive }) => `/drives/${drive}`),
  'drive brought back': asks('POST', ({ hidden }) => `/drives/${hidden}/restore`),
  'vehicle made': asks(
    'POST',
    () => '/vehicles',
    ({ gone }) => ({ id: gone, name: 'Sold', plate: 'S' }),
  ),
  'vehicle copied': asks('POST', ({ vehicle }) => `/vehicles/${vehicle}/duplicate`),
  'vehicle deleted': asks('DELETE', ({ vehicle }) => `/vehicles/${vehicle}`),
  'vehicle brought back': asks('POST', ({ gone }) => `/vehicles/${gone}/restore`),
  'old belts': asks(
    'POST',
    () => '/records/history',
    ({ plate }) => ({
      look: false,
      rows: [FIRST, SECOND].map((belt) => ({
        ...{ vehicle: 'Loader', plate, belt, number: `OLD ${belt}`, fitted: '2020-01-01', 'taken off': '2021-01-01' },
      })),
    }),
  ),
  'file brought in': asks(
    'POST',
    () => '/import',
    (at) => ({
      files: [
        {
          name: 'in.emery.json',
          text: writeDrive({ ...withBelt(at, 'TF 4'), name: 'Brought in' }, { vehicle: vehicleFields(at) }),
        },
      ],
    }),
  ),
  'archive brought in': (at) => {
    const text = writeDrive(
      { ...withBelt(at, 'TF 5'), name: 'Of the archive' },
      {
        vehicle: { id: at.vehicle, ...vehicleFields(at) },
        record: { id: at.drive, revision: 7, updatedAt: NOW },
      },
    );
    const zip = zipSync({ 'drives/one.emery.json': strToU8(text) });
    return () => shop.ask('POST', '/import/archive', zip, { 'content-type': 'application/zip' });
  },
  'list of belts brought in anew': asks(
    'POST',
    () => '/stock',
    ({ plate }) => ({
      replace: true,
      rows: [{ section: 'PK', ribs: '6', length: '1000', code: plate, shelf: '4' }],
    }),
  ),
  'belt struck off': asks('DELETE', ({ stock }) => `/stock/${stock}`),
  'parts brought in anew': asks(
    'POST',
    () => '/parts',
    () => ({ replace: true, rows: [{ label: 'Spacer', kind: 'spacer', depth: '2.5' }] }),
  ),
  'pulley added': asks(
    'POST',
    () => '/pulleys',
    ({ plate }) => ({ label: plate, role: 'fan', surface: 'vee', diameter: 130 }),
  ),
  'band set': asks(
    'PUT',
    () => '/bands/fan',
    () => ({ least: 1000, continuous: 9000, burst: null }),
  ),
  'shop named': asks(
    'PATCH',
    () => '/shop',
    () => ({ name: 'Yard' }),
  ),
};

/** All that is known of a place, without what differs each time: names made at random, and moments. */
async function stateOf(at: Place): Promise<string> {
  const rows = (sql: string, ...values: unknown[]) => shop.data.query<Record<string, unknown>[]>(sql, values);
  const vehicles = await rows(
    'SELECT id, name, plate, odometer, odometerUnit, notes, revision, deletedAt IS NULL AS shown FROM vehicle WHERE plate = ? OR notes = ?',
    at.plate,
    at.plate,
  );
  const drives = await rows(
    `SELECT drive.id, vehicleId, name, revision, deletedAt IS NULL AS shown, document, drive_memory.memory FROM drive
     JOIN drive_document ON drive_document.driveId = drive.id JOIN drive_memory ON drive_memory.driveId = drive.id
     WHERE vehicleId IN (?)`,
    vehicles.map(({ id }) => id),
  );
  const ids = drives.map(({ id }) => id);
  const jobs = await rows('SELECT id, vehicleId, driveId, signedBy, record FROM job WHERE driveId IN (?)', ids);
  const events = await rows('SELECT jobId, body FROM job_event WHERE jobId IN (?) ORDER BY seq', [
    ...jobs.map(({ id }) => id),
    '',
  ]);
  const derived = await derivedOf(vehicles.map(({ id }) => id as string));
  const searched = [
    await rows(
      'SELECT * FROM vehicle_search WHERE vehicleId IN (?)',
      vehicles.map(({ id }) => id),
    ),
    await rows('SELECT * FROM drive_search WHERE driveId IN (?)', ids),
  ].map((found) => found.map((row) => ({ ...row, text: (row['text'] as Buffer).toString('utf8') })));
  const shelf = await rows('SELECT code, shelf FROM stock_belt WHERE code = ?', at.plate);
  const lists = [
    await rows('SELECT label, kind, mm, pieces FROM part_at_hand'),
    await rows('SELECT label, role, diameter FROM pulley_at_hand WHERE label = ?', at.plate),
    await rows('SELECT * FROM speed_band'),
    await rows('SELECT name FROM shop'),
  ];
  const names = new Map<unknown, string>(Object.entries(at).map(([name, id]) => [id, name]));
  at.jobs.forEach((id, k) => names.set(id, `job ${k}`));
  // What was made meanwhile is known by what it is called.
  for (const { id, name } of [...vehicles, ...drives]) if (!names.has(id)) names.set(id, `new ${String(name)}`);
  const all = [vehicles, drives, jobs, events, ...derived, ...searched, shelf, ...lists].map((list) =>
    list.map((row) => named(row, names)).sort(),
  );
  return JSON.stringify(all, null, 1);
}

const TABLES = ['due', 'belt_life', 'record'];
async function derivedOf(vehicles: readonly string[]): Promise<Record<string, unknown>[][]> {
  const tables: Record<string, unknown>[][] = [];
  for (const table of TABLES) {
    const rows = await shop.data.query<Record<string, unknown>[]>(`SELECT * FROM ${table} WHERE vehicleId IN (?)`, [
      vehicles,
    ]);
    tables.push(
      rows.map(({ id: _id, changedAt: _changedAt, ...row }) =>
        Object.fromEntries(
          Object.entries(row).map(([key, value]) => [key, Buffer.isBuffer(value) ? value.toString('utf8') : value]),
        ),
      ),
    );
  }
  return tables;
}

const named = (row: unknown, names: ReadonlyMap<unknown, string>) =>
  JSON.stringify(row)
    .replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) => names.get(id) ?? 'a name')
    .replace(/P \d+|p \d+/g, 'plate')
    .replace(/"stock\\*":\d+/g, 'its row');

/** What is remembered is what would be written anew. */
async function remembered(at: Place): Promise<void> {
  const vehicles = [at.vehicle, at.other, at.gone];
  const sorted = (tables: object[][]) => tables.map((rows) => rows.map((row) => JSON.stringify(row)).sort());
  const before = sorted(await derivedOf(vehicles));
  await shop.data.transaction((manager) => rememberVehicles(manager, vehicles));
  expect(sorted(await derivedOf(vehicles))).toEqual(before);
}

const answered = ({ status, body }: Answer) => `${status} ${status < 300 ? '' : (body as { title: string }).title}`;

async function oneAfterTheOther(first: string, second: string): Promise<{ answers: string[]; state: string }> {
  const at = await made();
  const [left, right] = [WRITES[first]!(at), WRITES[second]!(at)];
  const answers = [answered(await left()), answered(await right())];
  return { answers, state: await stateOf(at) };
}

const names = Object.keys(WRITES);
const pairs = names.flatMap((first, k) => names.slice(k).map((second) => [first, second] as const));
/** Those that lost something once are tried every time, of the others an eighth by default. */
const LOST = new Set([
  ...['drive saved, signed off', 'signed off, other job signed off', 'vehicle saved, drive moved'],
  ...['drive made, drive made', 'vehicle saved, vehicle saved', 'drive beside saved, drive moved'],
  ...['signed off, list of belts brought in anew', 'drive moved, drive beside moved', 'signed off, ticked'],
  'vehicle saved, vehicle deleted',
]);
const asked = process.env['EMERY_PAIRS'];
const EVERY = THOROUGH ? 1 : 8;
const from = process.env['CI'] ? 0 : Math.floor(Math.random() * EVERY);
const tried = pairs.filter((pair, k) =>
  asked ? pair.some((name) => name === asked) : k % EVERY === from || LOST.has(pair.join(', ')),
);

test('all that lost something once is among them', () => {
  const there = new Set(pairs.map((pair) => pair.join(', ')));
  expect([...LOST].filter((pair) => !there.has(pair))).toEqual([]);
});

test.each(tried)(
  '%s, and %s at the same moment',
  async (first, second) => {
    const inTurn = await oneAfterTheOther(first, second);
    const turned = await oneAfterTheOther(second, first);
    const lawful = [inTurn, { answers: [...turned.answers].reverse(), state: turned.state }];
    for (let k = 0; k < TIMES; k += 1) {
      const at = await made();
      const [left, right] = [WRITES[first]!(at), WRITES[second]!(at)];
      const late = (send: () => Promise<Answer>, ms: number) =>
        new Promise((resolve) => setTimeout(resolve, ms)).then(send);
      const wait = Math.random() * APART_MS;
      const answers = (
        await Promise.all(k % 2 === 0 ? [late(left, 0), late(right, wait)] : [late(left, wait), late(right, 0)])
      ).map(answered);
      const state = await stateOf(at);
      const as = lawful.find((law) => law.state === state && `${law.answers}` === `${answers}`);
      if (!as) {
        const nearest = lawful.find((law) => `${law.answers}` === `${answers}`) ?? lawful[0]!;
        const [is, was] = [state.split('\n'), nearest.state.split('\n')];
        throw new Error(
          `${answers} is what neither order gives (${lawful.map((law) => `${law.answers}`).join(' or ')})\n` +
            [
              ...is.filter((line) => !was.includes(line)).map((line) => `+ ${line}`),
              ...was.filter((line) => !is.includes(line)).map((line) => `- ${line}`),
            ]
              .join('\n')
              .slice(0, 3000),
        );
      }
      await remembered(at);
    }
  },
  THOROUGH ? 120_000 : 30_000,
);

test.each(names)('%s: answered as it was done, though all it is about is deleted right after', async (name) => {
  const undisturbed = answered(await WRITES[name]!(await made())());
  const at = await made();
  const write = WRITES[name]!(at);
  const stored = shop.data.transaction.bind(shop.data) as (...all: unknown[]) => Promise<unknown>;
  const meets = jest.spyOn(shop.data, 'transaction').mockImplementation((async (...all: unknown[]) => {
    const done = await stored(...all);
    await shop.data.query('UPDATE vehicle SET deletedAt = NOW() WHERE id IN (?)', [[at.vehicle, at.other, at.gone]]);
    await shop.data.query('UPDATE drive SET deletedAt = NOW() WHERE vehicleId IN (?)', [[at.vehicle, at.other]]);
    await shop.data.query('DELETE FROM job WHERE vehicleId = ?', [at.vehicle]);
    return done;
  }) as never);
  try {
    expect(answered(await write())).toBe(undisturbed);
  } finally {
    meets.mockRestore();
  }
});
