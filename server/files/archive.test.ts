import { randomUUID } from 'node:crypto';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { draws } from '../../core/test/draws';
import { driveOf, SERPENTINE } from '../../core/test/examples';
import { running, type Running } from '../test/running';

let shop: Running;
beforeAll(async () => {
  shop = await running('demo');
});
afterAll(() => shop.stop());

const archive = async (from: Running) => new Uint8Array(await (await fetch(`${from.base}/export`)).arrayBuffer());
const bringIn = (to: Running, bytes: Uint8Array) =>
  to.ask('POST', '/import/archive', bytes, { 'content-type': 'application/zip' });
/** All that a shop holds, told apart from how it holds it. */
async function holdings({ data }: Running): Promise<Record<string, unknown>> {
  const rows = (sql: string) => data.query<unknown[]>(sql);
  return {
    shop: await rows('SELECT name, unit, hourRate FROM shop'),
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
  const other = await running('empty');
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
  await other.stop();
});

test("a drive that was worked on since is kept beside the archive's, once", async () => {
  const bytes = await archive(shop);
  const { id, document, revision } = (
    await shop.ask('GET', `/drives/${(await shop.ask('GET', '/drives')).body.drives[0].id}`)
  ).body;
  await shop.ask('PUT', `/drives/${id}`, {
    revision,
    saveId: randomUUID(),
    document: { ...document, name: 'Worked on since' },
  });
  expect((await bringIn(shop, bytes)).body).toMatchObject({ drives: [{}], there: 5 });
  expect((await bringIn(shop, bytes)).body).toMatchObject({ drives: [], there: 6 });
  const names = (await shop.ask('GET', '/drives?limit=100')).body.drives.map(({ name }: { name: string }) => name);
  expect(names).toContain('Worked on since');
  expect(names).toContain(`${document.name} (from the archive)`);
});

test('more drives than are read at a time go out and come back; a ZIP of plain drive files does too', async () => {
  const many = await running('empty');
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
  await many.stop();
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
    expect((await bringIn(shop, zipSync({ 'readme.txt': strToU8('x') }))).body.title).toBe('Nothing to bring in');
  });
});
