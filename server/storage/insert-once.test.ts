import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { newVehicle, Vehicle } from '../vehicles/entity';
import { Photo } from '../photos/entity';
import { keepPhoto } from '../photos/photo-store';
import { running, type Running } from '../test/running';
import { change } from './change';
import { insertOnce } from './insert-once';
import { PIECE } from './large';

let shop: Running;
beforeAll(async () => {
  shop = await running('empty');
}, 120_000);
afterAll(() => shop.stop());

test('the first stays, and what cannot be held is told and not written as something else', async () => {
  const { data } = shop;
  const id = randomUUID();
  await insertOnce(data.manager, Vehicle, 'id', { ...newVehicle({ name: 'First' }), id });
  await insertOnce(data.manager, Vehicle, 'id', { ...newVehicle({ name: 'Second' }), id });
  expect(await data.query('SELECT name, revision FROM vehicle')).toEqual([{ name: 'First', revision: 1 }]);
  const long = insertOnce(data.manager, Vehicle, 'id', newVehicle({ name: 'n'.repeat(200) }));
  await expect(long).rejects.toMatchObject({ code: 'ER_DATA_TOO_LONG' });
  const never = { ...newVehicle({ name: 'Never' }), updatedAt: new Date(8.64e15) };
  await expect(insertOnce(data.manager, Vehicle, 'id', never)).rejects.toThrow();
  expect(await data.query('SELECT COUNT(*) AS n FROM vehicle')).toEqual([{ n: '1' }]);
});

test('nothing of the server writes past what the database says', () => {
  const folder = path.join(__dirname, '..');
  const sources = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter(
    (name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && !name.includes('node_modules'),
  );
  expect(sources.length).toBeGreaterThan(60);
  // Named in comments it is in backquotes.
  const ignoring = sources.filter((name) =>
    /(?<!`)INSERT IGNORE|orIgnore\(/.test(readFileSync(path.join(folder, name), 'utf8')),
  );
  expect(ignoring).toEqual([]);
});

/* Pictures, which go in pieces. */

const photoOf = (bytes: Buffer) => ({
  ...{ hash: createHash('sha256').update(bytes).digest('hex'), width: 4, height: 3, bytes },
  createdAt: new Date('2026-12-02T08:00:00.000Z'),
});
const every = Buffer.from(Array.from({ length: 512 }, (_, k) => k % 256));

/** What a camera sends at its largest is more than one packet of the database holds as text. */
test.each([
  ...[every, randomBytes(1), randomBytes(PIECE - 1), randomBytes(PIECE), randomBytes(PIECE + 1)],
  randomBytes(11 * 1024 * 1024),
])('what is sent in pieces is stored byte for byte, and once', async (bytes) => {
  const photo = photoOf(bytes);
  await change(shop.data, (manager) => keepPhoto(manager, photo));
  await change(shop.data, (manager) => keepPhoto(manager, { ...photo, width: 9 }));
  const kept = await shop.data.getRepository(Photo).findOneByOrFail({ hash: photo.hash });
  expect([kept.width, kept.bytes.length, kept.bytes.equals(bytes)]).toEqual([4, bytes.length, true]);
});

test('two that send at once do not get one another’s bytes, and nothing stays behind', async () => {
  const photos = Array.from({ length: 6 }, (_, k) => photoOf(randomBytes(PIECE * k + 7)));
  await Promise.all(photos.map((photo) => change(shop.data, (manager) => keepPhoto(manager, photo))));
  for (const { hash, bytes } of photos) {
    const kept = await shop.data.getRepository(Photo).findOneByOrFail({ hash });
    expect(kept.bytes.equals(bytes)).toBe(true);
  }
  const left = await Promise.all(photos.map(() => shop.data.query('SELECT LENGTH(@sent) AS bytes')));
  expect(left.flat()).toEqual(Array(photos.length).fill({ bytes: null }));
});

test('outside of a transaction, whose connection is one, nothing is sent', async () => {
  const photo = photoOf(randomBytes(50));
  await expect(keepPhoto(shop.data.manager, photo)).rejects.toThrow('within a transaction');
  expect(await shop.data.getRepository(Photo).existsBy({ hash: photo.hash })).toBe(false);
});
