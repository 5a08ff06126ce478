import fc from 'fast-check';
import { draws } from '../test/draws';
import { type LayoutEvidence, layoutOf } from './layout';
import type { TriedEvidence } from './tried';
import { chancesOf, triedFits } from './uncertainty';

/*
 * The layout's sums against a plain integration over a grid, written apart from them: every density is multiplied out
 * place by place, every way that something may be wrong is added up, and nothing is taken to be normal after the fact.
 */

const density = (off: number, sigma: number) => Math.exp(-((off / sigma) ** 2) / 2) / (sigma * Math.sqrt(2 * Math.PI));
/** By Simpson's rule: no closed form shared with the sums under test. */
function below(to: number): number {
  if (to < -8) return 0;
  if (to > 8) return 1;
  const steps = 200;
  const width = (to + 8) / steps;
  let sum = density(-8, 1) + density(to, 1);
  for (let k = 1; k < steps; k += 1) sum += (k % 2 === 1 ? 4 : 2) * density(-8 + k * width, 1);
  return (sum * width) / 3;
}
const BELOW = Array.from({ length: 1601 }, (_, k) => below((k - 800) / 100));
/** The same off a table. */
const tabled = (to: number) => {
  const at = Math.max(0, Math.min(1599.999, 100 * to + 800));
  const low = Math.floor(at);
  return BELOW[low]! + (at - low) * (BELOW[low + 1]! - BELOW[low]!);
};

interface Grid {
  offset: { mean: number; sigma: number }[];
  chances: number[];
  own: number[];
  labels: number[];
}

/** Two places of the travel, slack and tight end: the grid is over how much longer the path is at either. */
function byGrid(evidence: LayoutEvidence, lengths: readonly number[], fraction: number): Grid {
  const { covariance, tried, witnesses, edges } = evidence;
  const [a, b, c] = [covariance[0]![0]! + 0.01, covariance[0]![1]! + 0.01, covariance[1]![1]! + 0.01];
  const prior = (x: number, y: number, more: number) => {
    const [A, B, C] = [a + more, b + more, c + more];
    const det = A * C - B * B;
    return Math.exp(-(C * x * x - 2 * B * x * y + A * y * y) / (2 * det)) / Math.sqrt(det);
  };
  // As far as a drawing with a slip in it may be out.
  const reach = 90;
  const step = 2;
  let total = 0;
  const moments = [0, 1, 2].map(() => ({ one: 0, two: 0 }));
  const fits = lengths.map(() => 0);
  const own = tried.map(() => 0);
  const labels = tried.map(() => 0);
  for (let x = -reach; x <= reach; x += step)
    for (let y = x - 18; y <= x + 18; y += step) {
      const at = (where: number) => x + (y - x) * where;
      let weight = 0.97 * prior(x, y, 0) + 0.03 * prior(x, y, 625);
      for (const { fraction: where, ways } of witnesses) {
        const each = ways.map(({ at: said, sigma }) => {
          const off = said - at(where);
          return 0.97 * density(off, sigma) + 0.03 * density(off, Math.hypot(sigma, 25));
        });
        weight *= each.reduce((sum, next) => sum + next, 0) / ways.length;
      }
      if (weight < 1e-14) continue;
      const min = Math.max(edges!.from.mm + at(edges!.from.fraction), edges!.goesOn!.mm + at(0));
      const max = edges!.to.mm + at(edges!.to.fraction);
      const each = tried.map((belt) => ofBelt(belt, at, edges!.goesOn!.mm, min, max));
      const all = each.reduce((product, { right, wrong }) => product * (right + wrong), weight);
      total += all;
      [x, at(0.5), y].forEach((mm, k) => {
        moments[k]!.one += all * mm;
        moments[k]!.two += all * mm * mm;
      });
      lengths.forEach((mm, k) => {
        const sigma = fraction * mm;
        fits[k]! += all * Math.max(0, tabled((max - mm) / sigma) - tabled((min - mm) / sigma));
      });
      each.forEach(({ right, wrong, fitting }, k) => {
        if (right + wrong === 0) return;
        own[k]! += (all * fitting) / (right + wrong);
        labels[k]! += (all * wrong) / (right + wrong);
      });
    }
  return {
    offset: moments.map(({ one, two }) => ({ mean: one / total, sigma: Math.sqrt(two / total - (one / total) ** 2) })),
    chances: fits.map((sum) => sum / total),
    own: own.map((sum) => sum / total),
    labels: labels.map((sum) => sum / total),
  };
}

/** One belt over its own length, with its label right and wrong, where the path is so long. */
function ofBelt(
  { tried: { outcome }, lengthMm, grownMm, sigmaMm, taut }: TriedEvidence,
  at: (fraction: number) => number,
  goesOn: number,
  min: number,
  max: number,
) {
  let [right, wrong, fitting] = [0, 0, 0];
  const step = 2;
  for (let own = -130; own <= 130; own += step) {
    const over = lengthMm + own - goesOn - at(0);
    const went = {
      'will-not-go-on': () => tabled(-over / 3),
      forced: () => tabled(-over / 3) - tabled((-0.006 * lengthMm - over) / 3),
      on: () => tabled(over / 3),
    }[outcome]();
    if (went < 1e-9) continue;
    const sat = taut ? density(lengthMm + own - taut.drawnMm - at(taut.fraction), taut.sigmaMm) : 1;
    const so = went * sat * step;
    const plain = 0.98 * density(own - grownMm, sigmaMm) * so;
    const other = 0.02 * density(own - grownMm, Math.hypot(sigmaMm, 40)) * so;
    right += plain;
    wrong += other;
    // The part of the step that lies in the window.
    const [low, high] = [Math.max(min, lengthMm + own - step / 2), Math.min(max, lengthMm + own + step / 2)];
    fitting += ((plain + other) * Math.max(0, high - low)) / step;
  }
  return { right, wrong, fitting };
}

const belt = (
  id: string,
  lengthMm: number,
  change: Partial<TriedEvidence> & { outcome?: 'on' | 'forced' | 'will-not-go-on' },
) => {
  const { outcome = 'on', ...more } = change;
  return {
    ...{ tried: { id, lengthMm, outcome }, lengthMm, grownMm: 0, sigmaMm: 0.0015 * lengthMm, taut: null },
    ...more,
  } satisfies TriedEvidence;
};
const EDGES = {
  goesOn: { mm: 1185, fraction: 0 },
  from: { mm: 1180, fraction: 0 },
  to: { mm: 1220, fraction: 1 },
};
const taut = (fraction: number, sigmaMm: number) => ({ fraction, drawnMm: 1180 + 40 * fraction, sigmaMm });
const LENGTHS = [1180, 1190, 1200, 1210, 1220];

const outcome = fc.record({
  lengthMm: fc.integer({ min: 1170, max: 1235 }),
  outcome: fc.constantFrom('on' as const, 'on' as const, 'forced' as const, 'will-not-go-on' as const),
  read: fc.option(fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 1.5, max: 4, noNaN: true }))),
});
const string = fc.record({
  at: fc.double({ min: -8, max: 8, noNaN: true }),
  apart: fc.option(fc.double({ min: 3, max: 15, noNaN: true })),
  sigma: fc.double({ min: 2, max: 5, noNaN: true }),
  fraction: fc.double({ min: 0, max: 1, noNaN: true }),
});

test('what a layout is, with belts tried on, agrees with a plain integration over a grid', () => {
  fc.assert(
    fc.property(
      fc.tuple(fc.double({ min: 3, max: 6, noNaN: true }), fc.double({ min: 3, max: 6, noNaN: true })),
      fc.double({ min: 0.3, max: 0.95, noNaN: true }),
      fc.array(outcome, { minLength: 1, maxLength: 3, size: 'max' }),
      fc.option(string),
      ([slack, tight], together, tries, laid) => {
        const evidence: LayoutEvidence = {
          covariance: [
            [slack ** 2, together * slack * tight],
            [together * slack * tight, tight ** 2],
          ],
          ...{ end: 1, widen: 1, edges: EDGES },
          witnesses: laid
            ? [
                {
                  id: 'm',
                  fraction: laid.fraction,
                  ways: [0, ...(laid.apart === null ? [] : [laid.apart])].map((by) => ({
                    at: laid.at + by,
                    sigma: laid.sigma,
                  })),
                },
              ]
            : [],
          tried: tries.map(({ lengthMm, outcome: went, read }, k) =>
            belt(`b${k}`, lengthMm, {
              outcome: went,
              taut: read && went !== 'will-not-go-on' ? taut(...read) : null,
            }),
          ),
        };
        const layout = layoutOf(evidence, { draws: 12_000 });
        const grid = byGrid(evidence, LENGTHS, 0.0015);
        // The grid stands at steps, the draws at their own number: either is good to about this.
        [0, 0.5, 1].forEach((where, k) => {
          const { mm, sigma } = layout.offsetAt(where);
          expect(Math.abs(mm - grid.offset[k]!.mean)).toBeLessThan(0.15 * grid.offset[k]!.sigma + 0.1);
          expect(Math.abs(sigma / grid.offset[k]!.sigma - 1)).toBeLessThan(0.2);
        });
        chancesOf(LENGTHS, layout, EDGES, 0.0015).chances.forEach((chance, k) =>
          expect(Math.abs(chance - grid.chances[k]!)).toBeLessThan(0.045),
        );
        evidence.tried.forEach(({ lengthMm, tried: { id } }, k) => {
          expect(Math.abs(triedFits(k, lengthMm, layout, EDGES) - grid.own[k]!)).toBeLessThan(0.06);
          const label = layout.mistaken.find(({ mistake }) => mistake.what === 'label' && mistake.id === id);
          expect(Math.abs((label?.chance ?? 0) - grid.labels[k]!)).toBeLessThan(0.06);
        });
      },
    ),
    { numRuns: draws(24), endOnFailure: true },
  );
});
