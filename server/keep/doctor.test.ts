import { randomUUID } from 'node:crypto';
import { running, type Running } from '../test/running';
import { doctor } from './doctor';

let shop: Running;
beforeEach(async () => {
  shop = await running('demo');
});
afterEach(() => shop.stop());

const states = async (mend = false) =>
  (await doctor(shop.data, { mend })).found.map(({ says, state }) => `${state}: ${says}`);

test('a shop in order has nothing, and all of it was looked at', async () => {
  const { looked, found } = await doctor(shop.data);
  expect(found).toEqual([]);
  expect(looked).toMatchObject({ drives: 6, vehicles: 6, pictures: 2, pulleys: 20 });
});

test('what is damaged is named, each for itself, and is not touched by mending', async () => {
  const { data } = shop;
  const [{ id }] = await data.query<[{ id: string }]>('SELECT id FROM drive ORDER BY id LIMIT 1');
  await data.query('UPDATE drive_document SET document = \'{"format":"emery-drive","version":1}\' WHERE driveId = ?', [
    id,
  ]);
  await data.query("UPDATE vehicle SET odometerUnit = 'ly' ORDER BY id LIMIT 1");
  await data.query("UPDATE photo SET bytes = CONCAT(bytes, 'x') ORDER BY hash LIMIT 1");
  await data.query('UPDATE stock_belt SET lengthMm = -1 ORDER BY id LIMIT 1');
  await data.query("INSERT INTO speed_band (role, least) VALUES ('kettle', 5)");
  await data.query('SET FOREIGN_KEY_CHECKS = 0');
  await data.query("INSERT INTO job_event (id, jobId, body) VALUES (?, ?, '{')", [randomUUID(), randomUUID()]);
  const found = await states(true);
  expect(found).toEqual(await states(true));
  for (const says of [
    `open: drive ${id} does not read: crankRotation`,
    'open: vehicle ',
    'open: picture ',
    'open: belt ',
    'open: the speed band of kettle does not read',
    'open: an event of job ',
    'open: job_event: 1 without their job',
  ])
    expect(found.filter((line) => line.startsWith(says))).toHaveLength(1);
});

test('a picture that a drive names and nobody has is told with the drive', async () => {
  await shop.data.query('DELETE FROM photo');
  const found = await states();
  expect(found.length).toBeGreaterThanOrEqual(2);
  for (const line of found) expect(line).toMatch(/^open: picture [0-9a-f]{16}… of drive [0-9a-f-]{36} is missing$/);
});

test('what is made out of other rows is made anew when it is asked to be, and then nothing is wrong', async () => {
  const { data } = shop;
  const listed = (await shop.ask('GET', '/drives')).body;
  const due = (await shop.ask('GET', '/records/due')).body;
  await data.query('DELETE FROM drive_search LIMIT 2');
  await data.query('DELETE FROM drive_memory LIMIT 1');
  await data.query("INSERT INTO vehicle_search (vehicleId, text) VALUES (?, 'x')", [randomUUID()]);
  await data.query("INSERT INTO drive_memory (driveId, memory) VALUES (?, '{}')", [randomUUID()]);
  const found = await states();
  expect(found).toHaveLength(3);
  expect(found.every((line) => line.startsWith('mendable: '))).toBe(true);
  expect((await shop.ask('GET', '/drives')).body.drives.length).toBeLessThan(listed.drives.length + 1);
  expect((await states(true)).map((line) => line.split(':')[0])).toEqual(['mended', 'mended', 'mended']);
  expect(await states()).toEqual([]);
  expect((await shop.ask('GET', '/drives')).body).toEqual(listed);
  const withoutIds = ({ dues }: { dues: { id: number }[] }) => dues.map(({ id: _, ...rest }) => rest);
  expect(withoutIds((await shop.ask('GET', '/records/due')).body)).toEqual(withoutIds(due));
});
