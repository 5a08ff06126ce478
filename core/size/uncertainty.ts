import { type LengthCurve, pathLength, slopeOf } from '../adjuster';
import { type Belt, changePulley, type Drive, moveStation } from '../drive';
import { chanceBelow, figureAt, product } from '../numeric';
import type { Sizing } from '../seating';
import { sectionFor } from '../section';
import { combinedDiameter, type SurveyFit } from '../survey';
import { DEFAULT_UNCERTAINTY } from './defaults';
import { type FitEdges, type Layout, layoutOf } from './layout';

export interface Uncertainty {
  /** By candidate, the chance that it fits, 0 to 1. */
  chances: number[];
  /**
   * The two candidates of which one fits most surely, by their place in the list, and that chance; null where fewer
   * than two are in question.
   */
  pair: { both: [number, number]; chance: number } | null;
  /** Standard deviation of the path at fractions 0, 1/n … 1 of the travel, mm. */
  spread: number[];
  draws: number;
}

/** What is uncertain about a drive, and how its path answers to each of it; the same for every length of belt. */
export interface Response {
  inputs: readonly Input[];
  /** At each of a few points of the travel, or once on fixed centres: mm of path for each mm, by input. */
  slopes: readonly (readonly number[])[];
}

/** How the path of a belt answers to all that is uncertain: the survey's fit says how well places are known. */
export function responseOf(drive: Drive, belt: Belt, { curve }: Sizing, fit: SurveyFit | null): Response {
  const inputs = inputsOf(drive, belt, fit);
  const there = curve ? fractionsOf(curve).map((fraction) => curve.travel.at(fraction)) : [drive];
  const slopes = there.map((posed) => inputs.map(({ with: more }) => slopeOf((by) => more(posed, by), belt, STEP)));
  return { inputs, slopes };
}

/** The points of the travel at which the response is worked out. */
function fractionsOf({ end }: LengthCurve): number[] {
  return Array.from({ length: STATIONS }, (_, k) => (end * k) / (STATIONS - 1));
}

export interface UncertaintyOptions {
  /** The survey's fit, for the ± of places. */
  fit?: SurveyFit | null;
  /** Where it is known already; `fit` has then no part in it. */
  response?: Response;
  /** What all evidence says of the layout; the drawing alone where it is left out. */
  layout?: Layout;
  draws?: number;
  seed?: number;
}

/** One uncertain figure: how the drive looks with it so much larger, and its standard deviation. */
interface Input {
  with: (drive: Drive, by: number) => Drive;
  sigma: number;
}

/** Points of the travel at which the response to each input is worked out. */
const STATIONS = 5;
const STEP = 0.05;

/**
 * How the path may differ from the drawing by its own ±, without anything that was measured of the length: the
 * covariance at the points of the travel, mm².
 */
export function covarianceOf({ inputs, slopes }: Response): number[][] {
  return slopes.map((row) =>
    slopes.map((other) =>
      inputs.reduce((sum, { sigma }, i) => sum + figureAt(row, i) * figureAt(other, i) * sigma ** 2, 0),
    ),
  );
}

/**
 * The chance of each candidate, by the drawing alone or by a layout that knows more. `sizing` is of the drive as drawn;
 * its candidates' lengths are the true ones.
 */
export function uncertaintyOf(drive: Drive, belt: Belt, sizing: Sizing, options: UncertaintyOptions = {}): Uncertainty {
  const response = options.response ?? responseOf(drive, belt, sizing, options.fit ?? null);
  const edges = edgesOf(belt, sizing);
  const layout =
    options.layout ??
    layoutOf(
      { covariance: covarianceOf(response), end: sizing.curve?.end ?? 1, witnesses: [], widen: 1, tried: [], edges },
      options,
    );
  const spread = spreadOf(sizing, layout);
  const lengths = sizing.candidates.map(({ lengthMm }) => lengthMm);
  if (!edges) return { chances: lengths.map(() => 0), pair: null, spread, draws: 0 };
  return { ...chancesOf(lengths, layout, edges, beltFractionOf(belt)), spread, draws: layout.draws.length };
}

/** A maker's tolerance of a belt's length, as a fraction of it. */
export const beltFractionOf = ({ section, sectionOverrides }: Pick<Belt, 'section' | 'sectionOverrides'>): number =>
  DEFAULT_UNCERTAINTY.beltFraction[sectionFor(section, sectionOverrides)!.kind];

/** One standard deviation of the path along the travel, or once on fixed centres, mm. */
export function spreadOf({ curve }: Pick<Sizing, 'curve'>, layout: Pick<Layout, 'offsetAt'>): number[] {
  if (!curve) return [layout.offsetAt(0).sigma];
  const points = curve.lengths.length - 1;
  return curve.lengths.map((_, k) => layout.offsetAt(k / points).sigma);
}

/**
 * What bounds the belts that fit, by the drawing: between the marks or over the travel, and long enough to go on; on
 * fixed centres no longer than the path and no shorter than it can be stretched. Null where there is no such window.
 */
export function edgesOf(belt: Belt, { fits, lastOn, curve, shortest }: Sizing): FitEdges | null {
  if (!fits) return null;
  if (!curve) {
    const at = (mm: number) => ({ mm, fraction: 0 });
    return { goesOn: at(shortest ?? fits.from), from: at(fits.from), to: at(fits.to) };
  }
  const at = (fraction: number) => {
    const mm = pathLength(curve.travel.at(fraction), belt);
    return mm === null ? null : { mm, fraction };
  };
  const [from, to] = [at(fits.from), at(fits.to)];
  if (!from || !to || lastOn === null || fits.to < fits.from) return null;
  return { goesOn: { mm: lastOn.needsMm, fraction: 0 }, from, to };
}

/** Chances nearer together than this are as sure as one another. */
const AS_SURE = 5e-4;

/** The window of each draw: what a belt must be longer than, and what it may not be longer than, mm. */
function windowsOf({ draws, sumAt }: Layout, { goesOn, from, to }: FitEdges) {
  const sums = [from, to, ...(goesOn ? [goesOn] : [])].map(({ mm, fraction }) => ({ mm, sum: sumAt(fraction) }));
  const at = ({ mm, sum }: (typeof sums)[number], row: Float64Array) => {
    let total = mm;
    for (const [place, weight] of sum) total += weight * figureAt(row, place);
    return total;
  };
  const [first, last, on] = sums;
  return {
    min: Float64Array.from(draws, (row) => Math.max(at(first!, row), on ? at(on, row) : -Infinity)),
    max: Float64Array.from(draws, (row) => at(last!, row)),
  };
}

/**
 * The chance that a new belt of each marked length fits, over all that the layout may be and the makers' tolerance; and
 * the two of which one fits most surely, of those that are still open.
 */
export function chancesOf(
  lengths: readonly number[],
  layout: Layout,
  edges: FitEdges,
  beltFraction: number,
  isOpen: (lengthMm: number) => boolean = () => true,
): Pick<Uncertainty, 'chances' | 'pair'> {
  const { min, max } = windowsOf(layout, edges);
  const { counts } = layout;
  // In each draw, by candidate: what its own tolerance leaves of it within the window.
  const belts = lengths.map((lengthMm, k) => {
    const sigma = beltFraction * lengthMm;
    const fits = Float64Array.from(min, (from, draw) =>
      Math.max(0, chanceBelow((figureAt(max, draw) - lengthMm) / sigma) - chanceBelow((from - lengthMm) / sigma)),
    );
    return { k, lengthMm, fits, chance: product(counts, fits) };
  });
  const open = belts.filter(({ lengthMm }) => isOpen(lengthMm));
  let pair: (NonNullable<Uncertainty['pair']> & { sum: number }) | null = null;
  for (const [n, a] of open.entries())
    for (const b of open.slice(n + 1)) {
      const sum = a.chance + b.chance;
      // No more than the two together can one of them fit.
      if (pair && sum < pair.chance) continue;
      const both = product(
        counts,
        a.fits.map((fits, draw) => fits * figureAt(b.fits, draw)),
      );
      const chance = sum - both;
      // Of pairs as sure as one another, the one whose halves are surer.
      const better =
        !pair || chance > pair.chance + AS_SURE || (chance > pair.chance - AS_SURE && sum > pair.sum + 1e-9);
      if (better) pair = { both: [a.k, b.k], chance, sum };
    }
  return {
    chances: belts.map(({ chance }) => chance),
    pair: pair && { both: pair.both, chance: pair.chance },
  };
}

/** The chance that the very belt that was tried on as the `k`-th fits, by all that it showed. */
export function triedFits(k: number, lengthMm: number, layout: Layout, edges: FitEdges): number {
  const { min, max } = windowsOf(layout, edges);
  const own = layout.ownPlace(k);
  return layout.draws.reduce((sum, row, d) => {
    const length = lengthMm + figureAt(row, own);
    return length >= figureAt(min, d) && length <= figureAt(max, d) ? sum + figureAt(layout.counts, d) : sum;
  }, 0);
}

/**
 * Places and diameters of all pulleys on the belt; the adjuster moves its own shaft, so that one's place is its pivot's
 * doubt.
 */
function inputsOf(drive: Drive, belt: Belt, fit: SurveyFit | null): Input[] {
  const on = new Set(belt.route.map(({ pulley }) => pulley));
  return drive.stations
    .filter(({ pulleys }) => pulleys.some(({ id }) => on.has(id)))
    .flatMap((station): Input[] => {
      const known = fit?.stations.find(({ id }) => id === station.id);
      const move = (dx: number, dy: number) => (moved: Drive, by: number) => {
        const now = moved.stations.find(({ id }) => id === station.id)!;
        return moveStation(moved, station.id, now.x + dx * by, now.y + dy * by);
      };
      // All is measured from the crank, so the crank itself has no doubt.
      const places =
        station.role === 'crankshaft'
          ? []
          : [
              { with: move(1, 0), sigma: known?.plusMinusX ?? DEFAULT_UNCERTAINTY.placeMm },
              { with: move(0, 1), sigma: known?.plusMinusY ?? DEFAULT_UNCERTAINTY.placeMm },
            ];
      const sizes = station.pulleys
        .filter(({ id, surface }) => on.has(id) && surface !== 'toothed')
        .map(({ id }): Input => ({
          with: (sized, by) => {
            const now = sized.stations.flatMap(({ pulleys }) => pulleys).find((pulley) => pulley.id === id)!;
            return changePulley(sized, id, { diameter: (now.diameter ?? 0) + by });
          },
          sigma: combinedDiameter(drive, id)?.plusMinus ?? DEFAULT_UNCERTAINTY.diameterMm,
        }));
      return [...places, ...sizes];
    });
}
