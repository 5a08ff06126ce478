import type { DataSource } from 'typeorm';
import { followLimits } from './follow-limits';

/** A database that is away for its first looks, and then holds nothing that is behind. */
function awayFor(looks: number) {
  const shop = jest.fn(async () => {
    if (shop.mock.calls.length <= looks) throw new Error('away');
    return { limits: null };
  });
  const query = jest.fn(async () => []);
  const data = { getRepository: () => ({ findOneByOrFail: shop }), query } as unknown as DataSource;
  return { data, shop, query };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a look that failed is made again after 1 s, 2 s and 4 s, not a minute later', async () => {
  const { data, shop, query } = awayFor(3);
  const follower = followLimits(data);
  const looksAfter = async (ms: number) => {
    await jest.advanceTimersByTimeAsync(ms);
    return shop.mock.calls.length;
  };
  expect(await looksAfter(900)).toBe(1);
  expect(await looksAfter(200)).toBe(2);
  expect(await looksAfter(2000)).toBe(3);
  expect(query).not.toHaveBeenCalled();
  expect(await looksAfter(4000)).toBe(4);
  expect(query).toHaveBeenCalledTimes(1);
  // All is in step: the next look is the minute's.
  expect(await looksAfter(30_000)).toBe(4);
  follower.stop();
});

test('one that is stopped looks no more', async () => {
  const { data, shop } = awayFor(99);
  const follower = followLimits(data);
  await jest.advanceTimersByTimeAsync(100);
  follower.stop();
  await jest.advanceTimersByTimeAsync(120_000);
  expect(shop).toHaveBeenCalledTimes(1);
});
