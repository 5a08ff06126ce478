import { strFromU8, unzipSync } from 'fflate';
import { sittingsOf } from '../core/size';
import { DEMO } from '../core/test/demo';
import { keptAndRead } from '../core/test/kept-belt';
import { fillShop } from './shop/fill-shop';
import { running, type Running } from './test/running';

/*
 * How the database finds what lists, records and export ask for, over a filled shop: each by an index and in its order.
 * No table is gone through whole, and no more is put in order than one page holds. What is searched for by a part of a
 * word is looked for in what was made for that and holds nothing else: the two search tables, and indexes by which a
 * list goes.
 */
let shop: Running;
const sent: { sql: string; values: unknown[] }[] = [];
let listening = false;
beforeAll(async () => {
  shop = await running('empty');
  await fillShop(shop.url, 2000, DEMO.rescue, 3);
  const rows = Array.from({ length: 3000 }, (_, k) => ({
    ...{ section: 'PK', ribs: String(3 + (k % 6)), length: String(800 + (k % 1500)) },
    ...{ code: `K ${k}`, shelf: '2' },
  }));
  await shop.ask('POST', '/stock', { rows });
  const sitting = JSON.stringify(sittingsOf(keptAndRead('2026-01-10', [[1500, 3]])));
  await shop.data.query("UPDATE belt_life SET sat = 'PK', sitting = ? WHERE id % 4 = 0", [sitting]);
  await shop.data.query('ANALYZE TABLE vehicle, drive, drive_document, due, belt_life, record, stock_belt, job');
  const made = shop.data.createQueryRunner.bind(shop.data);
  shop.data.createQueryRunner = (mode) => {
    const runner = made(mode);
    const query = runner.query.bind(runner) as (sql: string, values?: unknown[], structured?: boolean) => unknown;
    runner.query = ((sql: string, values: unknown[] = [], structured?: boolean) => {
      if (listening && /^\s*SELECT/i.test(sql)) sent.push({ sql, values });
      return query(sql, values, structured);
    }) as typeof runner.query;
    return runner;
  };
}, 120_000);
afterAll(() => shop.stop());

/** Rows of one page, and of what belongs to it. */
const PAGE = 1000;
/** Gone through to find a part of a word; and lists that hold a handful. */
const LOOKED_THROUGH = /^(found|vehicle_search|drive_search|shop|speed_band|pulley_at_hand|part_at_hand|photo|Shop)$/i;

interface Step {
  table: string | null;
  type: string | null;
  key: string | null;
  rows: string | null;
  Extra: string | null;
}

async function faultsOf({ sql, values }: (typeof sent)[number]): Promise<string[]> {
  const steps = await shop.data.query<Step[]>(`EXPLAIN ${sql}`, values);
  return steps.flatMap(({ table, type, key, rows, Extra }) => {
    const made = table?.startsWith('<') ?? true;
    const many = Number(rows ?? 0) > PAGE;
    const scan = type === 'ALL' && many && !made && !LOOKED_THROUGH.test(table!);
    const sort = /filesort|temporary/.test(Extra ?? '') && many;
    return scan || sort ? [`${table} ${type} ${key} ${rows} ${Extra}: ${sql.replace(/\s+/g, ' ').slice(0, 600)}`] : [];
  });
}

const LISTS = [
  ...['/vehicles', '/vehicles?search=vehicle', '/vehicles?search=b 77', '/vehicles?offset=300', '/vehicles/deleted'],
  ...['/drives', '/drives?search=drive', '/drives?search=drive 1234', '/drives/deleted'],
  ...['/records/due', '/records/due?search=vehicle 12', '/records/due.ics'],
  ...[
    '/records/belts',
    '/records/belts?offset=600',
    '/records/belts?search=pk',
    '/records/belts?search=6pk over 1000 km',
  ],
  ...['/records/belts?search=vehicle 77', '/records/belts.csv', '/records/belts.json'],
  ...['/records', '/records?search=worn', '/records?search=vehicle 321', '/records/file.csv', '/records/file.json'],
  '/records/growth?section=PK',
  ...['/stock', '/stock?search=K 12', '/stock?search=1234', '/stock?section=PK&ribs=6', '/stock?from=900&to=950'],
  ...['/stock/lengths?section=PK&ribs=6', '/stock/file', '/jobs', '/jobs/pace', '/export'],
];

test.each(LISTS)('%s', async (path) => {
  sent.length = 0;
  listening = true;
  const answer = await fetch(`${shop.base}${path.replaceAll(' ', '%20')}`);
  const bytes = new Uint8Array(await answer.arrayBuffer());
  listening = false;
  expect(answer.status).toBe(200);
  if (path === '/export') expect(Object.keys(unzipSync(bytes)).length).toBeGreaterThan(2000);
  else expect(strFromU8(bytes).length).toBeGreaterThan(20);
  expect(sent.length).toBeGreaterThan(0);
  // Each once, with the values it was last sent with.
  const different = new Map(sent.map((entry) => [entry.sql, entry]));
  const faults: string[] = [];
  for (const entry of different.values()) faults.push(...(await faultsOf(entry)));
  expect(faults).toEqual([]);
});

test('of one vehicle, one drive, and old belts by the vehicles they name', async () => {
  const { vehicles } = (await shop.ask('GET', '/vehicles?limit=1')).body as {
    vehicles: { id: string; drives: { id: string }[] }[];
  };
  const [{ id, drives }] = vehicles as [(typeof vehicles)[0]];
  sent.length = 0;
  listening = true;
  for (const path of [
    `/vehicles/${id}`,
    `/drives/${drives[0]!.id}`,
    `/records?vehicle=${id}`,
    `/jobs?drive=${drives[0]!.id}`,
  ])
    expect((await shop.ask('GET', path)).status).toBe(200);
  for (const path of [`/jobs?vehicle=${id}`, `/records/file.csv?vehicle=${id}`, `/export?drives=${drives[0]!.id}`])
    expect((await fetch(`${shop.base}${path}`)).status).toBe(200);
  const rows = Array.from({ length: 200 }, (_, k) => ({ vehicle: `Vehicle ${k}`, fitted: '2020-01-01' }));
  expect((await shop.ask('POST', '/records/history', { rows, look: true })).status).toBe(200);
  listening = false;
  const faults: string[] = [];
  for (const entry of new Map(sent.map((each) => [each.sql, each])).values()) faults.push(...(await faultsOf(entry)));
  expect(faults).toEqual([]);
});
