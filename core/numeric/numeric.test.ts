import fc from 'fast-check';
import { normals } from './normals';
import { hundredth, tenth } from './rounding';
import { againstTheOthers, deviationsApart, weightedMean } from './weighted-mean';

const figure = fc.record({
  at: fc.double({ min: -1e4, max: 1e4, noNaN: true }),
  sigma: fc.double({ min: 0.01, max: 100, noNaN: true }),
});

test('two figures: the closed form of their weighted mean, and its standard deviation', () => {
  const { at, sigma } = weightedMean([
    { at: 10, sigma: 1 },
    { at: 16, sigma: 2 },
  ]);
  expect(at).toBeCloseTo((10 * 4 + 16) / 5, 12);
  expect(sigma).toBeCloseTo(Math.sqrt(4 / 5), 12);
});

test('property: the mean lies among the figures, is surer than any of them, and minimises the weighted squares', () => {
  fc.assert(
    fc.property(fc.array(figure, { minLength: 1, maxLength: 8 }), (figures) => {
      const { at, sigma } = weightedMean(figures);
      const all = figures.map((one) => one.at);
      expect(at).toBeGreaterThanOrEqual(Math.min(...all) - 1e-6);
      expect(at).toBeLessThanOrEqual(Math.max(...all) + 1e-6);
      expect(sigma).toBeLessThanOrEqual(Math.min(...figures.map((one) => one.sigma)) + 1e-12);
      const cost = (mean: number) => figures.reduce((sum, one) => sum + ((one.at - mean) / one.sigma) ** 2, 0);
      for (const by of [-0.1, 0.1]) expect(cost(at + by)).toBeGreaterThanOrEqual(cost(at));
    }),
  );
});

test('property: each is held against the mean of all the others, as if it had never been read', () => {
  fc.assert(
    fc.property(fc.array(figure, { minLength: 2, maxLength: 6 }), (figures) => {
      againstTheOthers(figures).forEach((apart, k) => {
        const others = figures.filter((_, n) => n !== k);
        expect(apart).toBeCloseTo(deviationsApart(figures[k]!, weightedMean(others)), 9);
      });
    }),
  );
  expect(againstTheOthers([{ at: 1, sigma: 1 }])).toEqual([null]);
});

test('normal deviates: mean, spread and tails of a normal distribution; the same for the same seed', () => {
  const draw = normals(7);
  const many = Array.from({ length: 40_000 }, draw);
  const mean = many.reduce((sum, x) => sum + x, 0) / many.length;
  expect(Math.abs(mean)).toBeLessThan(4 / Math.sqrt(many.length));
  expect(Math.sqrt(many.reduce((sum, x) => sum + (x - mean) ** 2, 0) / many.length)).toBeCloseTo(1, 1);
  expect(many.filter((x) => Math.abs(x) < 1).length / many.length).toBeCloseTo(0.6827, 1);
  expect(many.filter((x) => Math.abs(x) > 3).length / many.length).toBeLessThan(0.0045);
  expect(many.every(Number.isFinite)).toBe(true);
  const again = normals(7);
  expect(Array.from({ length: 10 }, again)).toEqual(many.slice(0, 10));
  expect(normals(8)()).not.toBe(many[0]);
});

test('rounding to one and to two places', () => {
  expect([tenth(12.345), tenth(-0.05), hundredth(12.345678), hundredth(-1.006)]).toEqual([12.3, -0, 12.35, -1.01]);
});
