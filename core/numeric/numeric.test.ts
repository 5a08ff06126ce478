import fc from 'fast-check';
import { weightedLine } from './line';
import { normals } from './normals';
import { hundredth, tenth } from './rounding';
import { topBeside } from './top';
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
      const all = figures.map((figure) => figure.at);
      expect(at).toBeGreaterThanOrEqual(Math.min(...all) - 1e-6);
      expect(at).toBeLessThanOrEqual(Math.max(...all) + 1e-6);
      expect(sigma).toBeLessThanOrEqual(Math.min(...figures.map((figure) => figure.sigma)) + 1e-12);
      const cost = (mean: number) => figures.reduce((sum, figure) => sum + ((figure.at - mean) / figure.sigma) ** 2, 0);
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

test('a line: through two points exactly, and of more the one that no other beats', () => {
  const two = weightedLine([
    { x: 1, y: 10, weight: 5 },
    { x: 3, y: 4, weight: 2 },
  ]);
  expect(two.slope).toBeCloseTo(-3, 12);
  expect(two.y + two.slope * (1 - two.x)).toBeCloseTo(10, 12);
  expect(two.left).toBeCloseTo(0, 18);
  const point = fc.record({
    x: fc.double({ min: -50, max: 50, noNaN: true }),
    y: fc.double({ min: -50, max: 50, noNaN: true }),
    weight: fc.double({ min: 0.1, max: 10, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.array(point, { minLength: 3, maxLength: 12 }), fc.constantFrom(-0.1, 0.1), (points, by) => {
      const line = weightedLine(points);
      fc.pre(line.spread > 1);
      const left = (slope: number, rise: number) =>
        points.reduce((sum, { x, y, weight }) => sum + weight * (y - line.y - rise - slope * (x - line.x)) ** 2, 0);
      expect(left(line.slope, 0)).toBeCloseTo(line.left, 6);
      // A change of slope costs its square times the spread, one of height its square times the weight: no cross term.
      expect(left(line.slope + by, by) - line.left).toBeCloseTo(by * by * (line.spread + line.weight), 6);
    }),
  );
});

test('the top between three values is the top of the parabola through them, and never further than half a step', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -0.49, max: 0.49, noNaN: true }),
      fc.double({ min: 0.01, max: 100, noNaN: true }),
      (top, bend) => {
        const at = (x: number) => 3 - bend * (x - top) ** 2;
        expect(topBeside(at(-1), at(0), at(1))).toBeCloseTo(top, 6);
      },
    ),
  );
  expect(topBeside(0, 1, 5)).toBe(0);
  expect(topBeside(0, 4.9, 5)).toBe(0.5);
  expect(topBeside(1, 1, 1)).toBe(0);
});
