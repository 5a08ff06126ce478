import fc from 'fast-check';
import { normals } from '../numeric';
import { chanceOfAtMost, draws, leastHits } from './draws';

/** Two shares that are one to within a billionth of the larger or of 1e-12. */
const near = (first: number, other: number) =>
  expect(Math.abs(first - other)).toBeLessThan(1e-9 * Math.max(first, other) + 1e-12);

test('an eighth is drawn by default, at least one, and all where they are asked for', () => {
  expect([1, 7, 8, 9, 80, 4000].map((all) => draws(all, false))).toEqual([1, 1, 1, 2, 10, 500]);
  expect(draws(80, true)).toBe(80);
});

test('the chance of at most so many, by counting every outcome', () => {
  for (const count of [1, 2, 5, 11])
    for (const p of [0.03, 0.5, 0.9])
      for (let hits = 0; hits <= count; hits += 1) {
        let sum = 0;
        for (let outcome = 0; outcome < 2 ** count; outcome += 1) {
          const right = outcome.toString(2).replaceAll('0', '').length;
          if (right <= hits) sum += p ** right * (1 - p) ** (count - right);
        }
        near(chanceOfAtMost(hits, count, p), sum);
      }
});

test('the chance of at most so many of a great number is that of a normal with its mean and spread', () => {
  const normal = normals(3);
  const drawn = Array.from({ length: 40_000 }, normal);
  for (const [count, p, hits] of [
    [4000, 0.683, 2700],
    [1500, 0.95, 1440],
    [320, 0.6, 180],
  ] as const) {
    const spread = Math.sqrt(count * p * (1 - p));
    const share = drawn.filter((value) => count * p + spread * value <= hits + 0.5).length / drawn.length;
    expect(Math.abs(chanceOfAtMost(hits, count, p) - share)).toBeLessThan(0.02);
  }
});

test('a program that stands at its bound with all draws fails an eighth of them as seldom, and one hit more would be oftener', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 60 }), fc.double({ min: 0.05, max: 0.97, noNaN: true }), (made, from) => {
      const all = 8 * made;
      const min = leastHits(from, made, all);
      // The share whose chance to fall below the bound of all draws is two in a million, by trying shares.
      const bound = Math.ceil(from * all) - 1;
      let sound = from;
      while (sound < 1 && chanceOfAtMost(bound, all, sound) > 2e-6) sound += 0.0005;
      expect(chanceOfAtMost(min - 1, made, sound)).toBeLessThanOrEqual(2e-6);
      expect(chanceOfAtMost(min, made, sound - 0.0005)).toBeGreaterThan(2e-6);
      expect(min / made).toBeLessThanOrEqual(from + 1 / made);
    }),
    { numRuns: 40 },
  );
});
