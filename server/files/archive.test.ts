import { createHash, randomUUID } from 'node:crypto';
import { saved } from '../test/saved';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { draws } from '../../core/test/draws';
import { DEMO } from '../../core/test/demo';
import { driveOf, SERPENTINE } from '../../core/test/examples';
import { bringList, cardOf } from '@emery/core/job';
import { indexAllVehicles } from '../vehicles/search-index';
import { followed, running, type Running } from '../test/running';

let shop: Running;
beforeAll(async () => {
  shop = await running('demo');
});
/** Shops that a test has opened; shut at its end, however it ended. */
const opened: Running[] = [];
const open = async (how: 'demo' | 'empty' = 'empty') => {
  const made = await running(how);
  opened.push(made);
  return made;
};
afterEach(async () => {
  for (const running of opened.splice(0)) await running.stop();
});
afterAll(() => shop.stop());

const archive = async (from: Running) => new Uint8Array(await (await fetch(`${from.base}/export`)).arrayBuffer());
const bringIn = (to: Running, bytes: Uint8Array) =>
  to.ask('POST', '/import/archive', bytes, { 'content-type': 'application/zip' });
/** All that a shop holds, told apart from how it holds it. */
async function holdings({ data }: Running): Promise<Record<string, unknown>> {
  const rows = (sql: string) => data.query<unknown[]>(sql);
  return {
    shop: await rows('SELECT name, unit, hourRate, limits FROM shop'),
    vehicles: await rows(
      'SELECT id, name, plate, odometer, odometerUnit, notes, revision, updatedAt, deletedAt FROM vehicle ORDER BY id',
    ),
    drives: await rows(
      'SELECT id, vehicleId, name, revision, updatedAt, deletedAt, document, sketch FROM drive JOIN drive_document ON driveId = id ORDER BY id',
    ),
    photos: await rows('SELECT hash, SHA2(bytes, 256) AS sum FROM photo ORDER BY hash'),
    stock: await rows(
      'SELECT section, ribs, lengthMm, code, price, shelf FROM stock_belt ORDER BY section, ribs, lengthMm, code',
    ),
    bands: await rows('SELECT * FROM speed_band ORDER BY role'),
    pulleys: await rows('SELECT * FROM pulley_at_hand ORDER BY id'),
    searched: await rows('SELECT * FROM drive_search ORDER BY driveId'),
  };
}

test('the archive of a shop holds all of it, and comes back into an empty one just so; a second time nothing doubles', async () => {
  // What is easily forgotten: a vehicle without drives, deleted ones, a code that a spreadsheet would misread, a band.
  await shop.ask('POST', '/vehicles', { name: 'No drive yet', plate: 'N 1' });
  const gone = (await shop.ask('POST', '/vehicles', { name: 'Sold' })).body;
  await shop.ask('DELETE', `/vehicles/${gone.id}`);
  const { drives } = (await shop.ask('GET', '/drives')).body;
  await shop.ask('DELETE', `/drives/${drives[0].id}`);
  await shop.ask('POST', '/stock', {
    rows: [
      { section: 'PK', ribs: '6', length: '1234', code: '-12', shelf: '2' },
      { section: 'PK', ribs: '6', length: '1235', code: '=1+1', shelf: '' },
    ],
  });
  await shop.ask('PUT', '/bands/alternator', { least: 1500, continuous: 9000, burst: 12_000 });
  await shop.ask('PATCH', '/shop', { hourRate: 92.5 });
  const bytes = await archive(shop);
  const other = await open();
  const first = await bringIn(other, bytes);
  expect(first).toMatchObject({ status: 201, body: { vehicles: 8, there: 0 } });
  const kept = await holdings(other);
  const brought = first.body as Record<string, unknown>;
  expect([brought['pictures'], brought['belts'], brought['pulleys']]).toEqual(
    [kept.photos, kept.stock, kept.pulleys].map((rows) => (rows as object[]).length),
  );
  expect(brought['drives']).toHaveLength(6);
  expect(kept).toEqual(await holdings(shop));
  const again = await bringIn(other, bytes);
  expect(again.body).toMatchObject({ drives: [], vehicles: 0, pictures: 0, belts: 0, pulleys: 0, there: 6 });
  expect(await holdings(other)).toEqual(kept);
  // And into the shop it came from.
  await bringIn(shop, bytes);
  expect(await holdings(shop)).toEqual(kept);
});

test("a drive that was worked on since is kept beside the archive's, once", async () => {
  const bytes = await archive(shop);
  const { id, document } = (await shop.ask('GET', `/drives/${(await shop.ask('GET', '/drives')).body.drives[0].id}`))
    .body;
  await saved(shop.ask, id, { ...document, name: 'Worked on since' });
  expect((await bringIn(shop, bytes)).body).toMatchObject({ drives: [{}], there: 5 });
  expect((await bringIn(shop, bytes)).body).toMatchObject({ drives: [], there: 6 });
  const names = (await shop.ask('GET', '/drives?limit=100')).body.drives.map(({ name }: { name: string }) => name);
  expect(names).toContain('Worked on since');
  expect(names).toContain(`${document.name} (from the archive)`);
});

test('more drives than are read at a time go out and come back; a ZIP of plain drive files does too', async () => {
  const many = await open();
  const count = draws(2100);
  const file = JSON.stringify({ ...driveOf(SERPENTINE, {}, { crankRotation: 'cw' }), name: 'One of many' });
  const plain = zipSync(
    Object.fromEntries(
      Array.from({ length: count }, (_, k) => [`Fleet/${k}.EMERY.json`.replace('.EMERY', '.emery'), strToU8(file)]),
    ),
    { level: 1 },
  );
  const came = await bringIn(many, plain);
  expect(came.body.drives).toHaveLength(count);
  expect(Object.keys(unzipSync(await archive(many))).filter((name) => name.endsWith('.emery.json'))).toHaveLength(
    count,
  );
}, 240_000);

test('some drives are exported as plain files, without the records of this shop', async () => {
  const { drives } = (await shop.ask('GET', '/drives')).body;
  const ids = drives.slice(0, 2).map(({ id }: { id: string }) => id) as string[];
  const files = unzipSync(
    new Uint8Array(await (await fetch(`${shop.base}/export?drives=${ids.join(',')},${randomUUID()}`)).arrayBuffer()),
  );
  const texts = Object.values(files).map((bytes) => strFromU8(bytes));
  expect(texts).toHaveLength(2);
  for (const text of texts) expect(JSON.parse(text)).not.toHaveProperty('record');
});

describe('an archive that is not whole brings in nothing, and names what is wrong', () => {
  const spoiled = async (change: (files: Record<string, Uint8Array>) => void) => {
    const files = unzipSync(await archive(shop));
    change(files);
    const before = await holdings(shop);
    const answer = await bringIn(shop, zipSync(files));
    expect(await holdings(shop)).toEqual(before);
    return answer;
  };
  test('a picture changed', async () => {
    expect(
      await spoiled((files) => Object.assign(files, { [`pictures/${'0'.repeat(64)}.jpg`]: strToU8('no picture') })),
    ).toMatchObject({
      status: 422,
      body: { detail: expect.stringMatching(/^pictures\/0+\.jpg is damaged/) as string },
    });
  });
  test('a drive that is none', async () => {
    expect(
      await spoiled((files) =>
        Object.assign(files, { 'drives/x.emery.json': strToU8('{"format":"emery-drive","version":1}') }),
      ),
    ).toMatchObject({ status: 422, body: { detail: expect.stringMatching(/^drives\/x\.emery\.json: /) as string } });
  });
  test('a line of the vehicles cut off', async () => {
    expect(await spoiled((files) => Object.assign(files, { 'vehicles.jsonl': strToU8('{"id":"') }))).toMatchObject({
      status: 422,
      body: { detail: expect.stringMatching(/^vehicles\.jsonl, line 1/) as string },
    });
  });
  test('no archive at all, and one with nothing in it', async () => {
    expect((await bringIn(shop, strToU8('PK no archive'))).status).toBe(422);
    expect((await bringIn(shop, zipSync({ 'readme.txt': strToU8('x') }))).body.title).toBe('Nothing to import');
  });
});

/** A shop with all that an export could lose: the same names, the same belts, dates, late ticks, what was deleted. */
async function full(): Promise<Running> {
  const made = await open();
  const ok = async (method: string, where: string, body?: unknown) => {
    const answer = await made.ask(method, where, body);
    if (answer.status >= 300) throw new Error(`${method} ${where}: ${JSON.stringify(answer.body)}`);
    return answer.body as { id: string; belts: { id: number }[] };
  };
  await ok('PATCH', '/shop', {
    ...{ name: 'Yard', unit: 'in', hourRate: 92.5 },
    limits: [{ check: 'rib-depth', section: 'PK', replace: 2.3 }],
  });
  await ok('PUT', '/bands/alternator', { least: 1500, continuous: 9000, burst: 12_000 });
  await ok('POST', '/pulleys', { label: 'Fan', role: 'fan', surface: 'vee', diameter: 130, count: 3 });
  await ok('POST', '/pulleys', { label: 'Fan', role: 'fan', surface: 'vee', diameter: 130 });
  await ok('POST', '/parts', {
    rows: [{ label: "'=1+1", kind: 'spacer', depth: '-2.5', plusminus: '0.1', price: '4' }],
  });
  const belt = { section: 'PK', ribs: '6', length: '1234.5', code: '-12', shelf: '4' };
  await ok('POST', '/stock', { rows: [belt, belt, { ...belt, code: 'B', price: '12.75' }] });
  const { belts } = await ok('GET', '/stock');
  const alike = { name: 'Loader', plate: 'L 1' };
  const twins = [await ok('POST', '/vehicles', { ...alike, odometer: 40_000 }), await ok('POST', '/vehicles', alike)];
  for (const { id } of twins) await ok('POST', '/drives', { vehicleId: id, document: DEMO.pickup });
  // Nobody said which vehicle these are.
  for (const name of ['Pump', 'Saw']) await ok('POST', '/drives', { document: { ...DEMO.rescue, name } });
  const hidden = await ok('POST', '/drives', { vehicleId: twins[0]!.id, document: DEMO.climb });
  await ok('DELETE', `/drives/${hidden.id}`);
  const sold = await ok('POST', '/vehicles', { name: 'Sold', odometer: 12, odometerUnit: 'h' });
  await ok('POST', '/drives', { vehicleId: sold.id, document: DEMO.climb });
  await ok('DELETE', `/vehicles/${sold.id}`);
  const { id: driveId } = await ok('POST', '/drives', { vehicleId: twins[1]!.id, document: DEMO.pickup });
  const { order, steps } = cardOf(DEMO.pickup);
  const rest = { off: order.off, on: order.on, steps, bring: bringList(DEMO.pickup) };
  const sheet = { drive: DEMO.pickup, unit: 'mm', belt: null, ...rest };
  const event = (more: object) => ({ id: randomUUID(), at: '2026-11-26T10:00:00.000Z', by: 'Ann', ...more });
  const jobs = [randomUUID(), randomUUID()];
  for (const id of jobs) {
    await ok('POST', '/jobs', { id, driveId, by: 'Ann', at: '2026-11-26T09:00:00.000Z', sheet });
    await ok('POST', `/jobs/${id}/events`, {
      events: [
        event({ kind: 'part', name: '-12', count: 1, stock: belts[1]!.id }),
        event({ kind: 'odometer', odometer: 41_000 }),
        event({ kind: 'belt', belt: 'inner', fitted: 'new', why: 'worn', number: 'N 1' }),
        event({ kind: 'note', text: 'Ünïcode ✓ "quoted"' }),
      ],
    });
  }
  await ok('POST', `/jobs/${jobs[0]}/sign-off`, { by: 'Bob', at: '2026-11-26T11:00:00.000Z' });
  await ok('POST', `/jobs/${jobs[0]}/events`, { events: [event({ kind: 'tick', step: steps[0]!.id, done: true })] });
  return made;
}

/** All that a shop shows of what is due, on and remembered, and of its jobs. */
async function shown({ data }: Running): Promise<unknown> {
  const rows = (sql: string) => data.query<unknown[]>(sql);
  await followed(data);
  return {
    due: await rows('SELECT vehicleId, driveId, kind, text, day, odometer, expected FROM due ORDER BY driveId, name'),
    lives: await rows(
      'SELECT vehicleId, driveId, belt, number, fromAt, ranKm, isOn FROM belt_life ORDER BY driveId, belt, fromAt',
    ),
    records: await rows(
      'SELECT vehicleId, driveId, jobId, kind, at, title, detail FROM record ORDER BY driveId, at, title',
    ),
    odometers: await rows('SELECT id, odometer, odometerAt FROM vehicle ORDER BY id'),
    jobs: await rows('SELECT id, vehicleId, driveId, signedAt, record, sheet FROM job ORDER BY id'),
    events: await rows('SELECT jobId, id, body FROM job_event ORDER BY jobId, seq'),
    stock: await rows('SELECT * FROM stock_belt ORDER BY id'),
  };
}

test('an export of an import is the same file, byte by byte, and all that the shop shows is the same', async () => {
  const [from, to] = [await full(), await open()];
  // Odometers were read long before they were last saved.
  await from.data.query("UPDATE vehicle SET odometerAt = '2024-02-03 04:05:06.789' WHERE odometer IS NOT NULL");
  await from.data.transaction(async (manager) => indexAllVehicles(manager));
  const bytes = await archive(from);
  expect((await bringIn(to, bytes)).status).toBe(201);
  const again = await archive(to);
  expect(Object.keys(unzipSync(again)).sort()).toEqual(Object.keys(unzipSync(bytes)).sort());
  for (const [name, content] of Object.entries(unzipSync(bytes)))
    expect(`${name}\n${strFromU8(unzipSync(again)[name]!)}`).toBe(`${name}\n${strFromU8(content)}`);
  expect(Buffer.compare(again, bytes)).toBe(0);
  expect(await shown(to)).toEqual(await shown(from));
  // Its list of checksums is what any program makes of it.
  for (const line of strFromU8(unzipSync(bytes)['SHA256SUMS']!).trim().split('\n')) {
    const [sum, name] = line.split('  ') as [string, string];
    expect([name, createHash('sha256').update(unzipSync(bytes)[name]!).digest('hex')]).toEqual([name, sum]);
  }
}, 60_000);

test('a program that reads the archive from front to back can', async () => {
  const bytes = Buffer.from(await archive(shop));
  const entries: { large: boolean; method: number; sizeFollows: boolean }[] = [];
  for (let at = bytes.readUInt32LE(bytes.length - 6); bytes.readUInt32LE(at) === 0x02014b50;) {
    const [flags, method] = [bytes.readUInt16LE(at + 8), bytes.readUInt16LE(at + 10)];
    entries.push({ large: bytes.readUInt32LE(at + 24) > 64 * 1024, method, sizeFollows: (flags & 8) !== 0 });
    at += 46 + [28, 30, 32].reduce((sum, field) => sum + bytes.readUInt16LE(at + field), 0);
  }
  expect(entries.length).toBe(Object.keys(unzipSync(bytes)).length);
  expect(entries.some(({ large }) => large)).toBe(true);
  // Where the size comes after the content, only what is deflated says by itself where it ends.
  expect(entries.filter(({ method, sizeFollows }) => method === 0 && sizeFollows)).toEqual([]);
});

test('a belt that a job took is the same belt in a shop that has a list of its own', async () => {
  const [from, to] = [await full(), await open()];
  const row = (code: string) => ({ section: 'PK', ribs: '6', length: '900', code, shelf: '7' });
  await to.ask('POST', '/stock', { rows: ['one', 'two', 'three', 'four'].map(row) });
  const bytes = await archive(from);
  expect((await bringIn(to, bytes)).body).toMatchObject({ belts: 3, jobs: 2 });
  const [job] = await to.data.query<{ id: string }[]>('SELECT id FROM job WHERE signedAt IS NULL');
  expect((await to.ask('POST', `/jobs/${job!.id}/sign-off`, { by: 'Ann', at: '2026-11-27T10:00:00Z' })).status).toBe(
    200,
  );
  const left = await to.data.query<{ code: string; shelf: number }[]>('SELECT code, shelf FROM stock_belt ORDER BY id');
  expect(left.filter(({ code }) => ['one', 'two', 'three', 'four'].includes(code)).map(({ shelf }) => shelf)).toEqual([
    7, 7, 7, 7,
  ]);
  expect(
    left
      .filter(({ code }) => code === '-12')
      .map(({ shelf }) => shelf)
      .sort(),
  ).toEqual([2, 4]);
  // Once more, nothing doubles; the drive that was worked on since is kept beside the archive's.
  expect((await bringIn(to, bytes)).body).toMatchObject({ belts: 0, jobs: 0, vehicles: 0, pulleys: 0, drives: [{}] });
}, 60_000);

describe('one bit that is another', () => {
  const flipped = async (level: 0 | 6) => {
    const from = await full();
    const bytes = zipSync(unzipSync(await archive(from)), { level });
    const want = JSON.stringify([await holdings(from), await shown(from)]);
    let to = await open();
    let refused = 0;
    for (let k = 0; k < draws(150); k += 1) {
      const spoiled = Uint8Array.from(bytes);
      const at = Math.floor(Math.random() * spoiled.length);
      spoiled[at]! ^= 1 << Math.floor(Math.random() * 8);
      const { status } = await bringIn(to, spoiled);
      expect([201, 422]).toContain(status);
      if (status === 422) {
        refused += 1;
        expect(await to.data.query('SELECT id FROM vehicle')).toEqual([]);
      } else {
        // In what no one reads, such as the time of an entry: all of it is there, as it was.
        expect(JSON.stringify([await holdings(to), await shown(to)])).toBe(want);
        to = await open();
      }
    }
    expect(refused).toBeGreaterThan(0);
  };
  test('in an archive that is packed', () => flipped(6), 240_000);
  test('in one that is not', () => flipped(0), 240_000);
});

describe('an archive brings in nothing that the API refuses', () => {
  let bytes: Uint8Array;
  beforeAll(async () => {
    const from = await full();
    bytes = await archive(from);
  });
  // Made anew by hand, with no list of checksums: what it holds is what is looked at.
  const edited = (name: RegExp, change: (text: string) => string) => {
    const files = unzipSync(bytes);
    delete files['SHA256SUMS'];
    files['shop.json'] = strToU8(strFromU8(files['shop.json']!).replace(/"sums": "SHA256SUMS",\s*/, ''));
    const found = Object.keys(files).filter((key) => name.test(key));
    for (const entry of found) files[entry] = strToU8(change(strFromU8(files[entry]!)));
    return zipSync(files);
  };
  const cases: [string, RegExp, (text: string) => string, RegExp][] = [
    [
      'a surface that is none',
      /shop/,
      (text) => text.replace('"vee"', '"nonsense"'),
      /^shop\.json pulleys\[0\]\.surface must be one of/,
    ],
    [
      'a pulley beyond all size',
      /shop/,
      (text) => text.replace(/"diameter": 130/, '"diameter": -1e308'),
      /pulleys\[0\]\.diameter must be more/,
    ],
    [
      'grooves without end',
      /shop/,
      (text) => text.replace(/"grooves": null/, '"grooves": 1e30'),
      /pulleys\[0\]\.grooves must be/,
    ],
    ['a part beyond all size', /shop/, (text) => text.replace('-2.5', '-1e308'), /parts\[0\]\.depth/],
    [
      'the same band twice',
      /shop/,
      (text) => text.replace(/"bands": \[([^\]]*)\]/, '"bands": [$1,$1]'),
      /bands\[1\]\. is listed twice/,
    ],
    [
      'a band that falls',
      /shop/,
      (text) => text.replace('"least": 1500', '"least": 9500'),
      /bands\[0\]\.burst must not be below/,
    ],
    [
      'a moment that is none',
      /shop/,
      (text) => text.replace(/"createdAt": "[^"]+"/, '"createdAt": "+275760-09-13T00:00:00.000Z"'),
      /createdAt must be a time/,
    ],
    [
      'an hour that costs less than nothing',
      /shop/,
      (text) => text.replace('92.5', '-92.5'),
      /^shop\.json hourRate must be 0 or more/,
    ],
    [
      'a vehicle of year one',
      /vehicles/,
      (text) => text.replace(/"updatedAt":"\d{4}/, '"updatedAt":"0001'),
      /^vehicles\.jsonl, line 1 updatedAt must be a time/,
    ],
    [
      'a vehicle that is listed twice',
      /vehicles/,
      (text) => text.split('\n')[0]! + '\n' + text,
      /line 2 is a vehicle that is already listed/,
    ],
    [
      'an odometer that is no number',
      /vehicles/,
      (text) => text.replace('"odometer":40000', '"odometer":1e30'),
      /odometer (must|is)/,
    ],
    [
      'a picture that is markup',
      /jobs/,
      (text) => text.replace('"pictures":[]', '"pictures":[{"hash":"<b>","width":1,"height":1}]'),
      /record\.pictures\[0\]\.hash must be the SHA-256/,
    ],
    [
      'an event of no kind',
      /jobs/,
      (text) => text.replace('"kind":"odometer"', '"kind":"constructor"'),
      /events\[1\]\.kind must be one of/,
    ],
    [
      'an event twice',
      /jobs/,
      (text) => text.replace(/"events":\[(\{[^}]*\})/, '"events":[$1,$1'),
      /events\[1\]\.id is listed twice/,
    ],
    ['a job without who signed it', /jobs/, (text) => text.replace('"signedBy":"Bob",', ''), /signedBy is missing/],
    [
      'a record of what is not signed off',
      /jobs/,
      (text) => text.replace(/"signedAt":"[^"]+","signedBy":"Bob",/, ''),
      /record is there, and the job is not signed off/,
    ],
    [
      'a drive of year 275760',
      /drives/,
      (text) => text.replace(/"updatedAt": "[^"]+"/, '"updatedAt": "+275760-09-13T00:00:00.000Z"'),
      /record\.updatedAt must be a time/,
    ],
    [
      'a belt without a number of its own',
      /belts/,
      (text) => text.replace(/\r\n\d+,/, '\r\n1e9999,'),
      /row 1 id: must be the number/,
    ],
  ];
  test.each(cases)('%s', async (_name, file, change, message) => {
    const to = await open();
    const { status, body } = await bringIn(to, edited(file, change));
    expect([status, body.detail]).toEqual([422, expect.stringMatching(message)]);
    expect(body.detail.split('\n')).toHaveLength(1);
    expect(await to.data.query('SELECT id FROM vehicle UNION SELECT id FROM drive UNION SELECT id FROM job')).toEqual(
      [],
    );
  });
  test('as it is, it comes in', async () => {
    const to = await open();
    expect((await bringIn(to, edited(/none/, String))).status).toBe(201);
  });
  test('entries that lie over one another, two of one name, one that is missing', async () => {
    const to = await open();
    const files = unzipSync(bytes);
    delete files['vehicles.jsonl'];
    expect((await bringIn(to, zipSync(files))).body.detail).toMatch(/^vehicles\.jsonl is missing/);
    delete files['SHA256SUMS'];
    expect((await bringIn(to, zipSync(files))).body.detail).toMatch(/^SHA256SUMS is missing/);
    const buffer = Buffer.from(
      zipSync({ 'a.emery.json': strToU8('a'.repeat(500)), 'b.emery.json': strToU8('b'.repeat(500)) }, { level: 0 }),
    );
    const twice = Buffer.from(buffer.toString('latin1').replaceAll('b.emery.json', 'a.emery.json'), 'latin1');
    expect((await bringIn(to, twice)).body.detail).toMatch(/two entries called a\.emery\.json/);
  });
});
