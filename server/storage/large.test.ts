import { createHash, randomBytes } from 'node:crypto';
import { Photo } from '../photos/entity';
import { keepPhoto } from '../photos/photo-store';
import { running, type Running } from '../test/running';
import { change } from './change';
import { PIECE } from './large';

let shop: Running;
beforeAll(async () => {
  shop = await running('empty');
}, 120_000);
afterAll(() => shop.stop());

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
