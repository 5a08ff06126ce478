import { type LengthCurve, pathLength, slopeOf } from '../adjuster';
import { type Belt, changePulley, type Drive, moveStation } from '../drive';
import { normals } from '../numeric';
import type { Sizing } from '../seating';
import { sectionFor } from '../section';
import { combinedDiameter, type SurveyFit } from '../survey';
import { DEFAULT_UNCERTAINTY } from './defaults';

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
  /** How sure the length is with what was measured of it, over how sure the drawing alone is. Default 1. */
  certainty?: number;
  draws?: number;
  seed?: number;
  onProgress?: (fraction: number) => void;
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
 * Monte Carlo over everything that was measured with a doubt, and the belts' own tolerance. How the path answers to
 * each input is worked out once at a few points of the travel (it is all but straight over a few mm); the draws then
 * cost next to nothing. Draws are the same for the same seed.
 */
export function uncertaintyOf(drive: Drive, belt: Belt, sizing: Sizing, options: UncertaintyOptions = {}): Uncertainty {
  const { candidates } = sizing;
  const draws = options.draws ?? 10_000;
  const { inputs: known, slopes } = options.response ?? responseOf(drive, belt, sizing, options.fit ?? null);
  const inputs = known.map((input) => ({ ...input, sigma: input.sigma * (options.certainty ?? 1) }));
  const { edges, spread } = sizing.curve
    ? adjusterEdges(belt, sizing, sizing.curve, inputs, slopes)
    : fixedEdges(sizing, inputs, slopes[0]!);
  if (!edges) return { chances: candidates.map(() => 0), pair: null, spread, draws: 0 };
  const beltFraction = DEFAULT_UNCERTAINTY.beltFraction[sectionFor(belt.section, belt.sectionOverrides)!.kind];
  const normal = normals(options.seed ?? 1);
  const sigmas = inputs.map(({ sigma }) => sigma);
  const drawn = new Float64Array(sigmas.length);
  const fits = candidates.map(() => false);
  // Ten thousand times over: plain loops, no list made anew.
  const sum = (slopes: readonly number[]) => {
    let total = 0;
    for (let i = 0; i < slopes.length; i += 1) total += slopes[i]! * drawn[i]!;
    return total;
  };
  const counts = candidates.map(() => 0);
  const either = candidates.map(() => candidates.map(() => 0));
  for (let draw = 0; draw < draws; draw += 1) {
    if (draw % 1000 === 0) options.onProgress?.(draw / draws);
    for (let i = 0; i < sigmas.length; i += 1) drawn[i] = sigmas[i]! * normal();
    let min = -Infinity;
    for (const { mm, slopes } of edges.min) min = Math.max(min, mm + sum(slopes));
    const max = edges.max.mm + sum(edges.max.slopes);
    for (let k = 0; k < candidates.length; k += 1) {
      const length = candidates[k]!.lengthMm * (1 + beltFraction * normal());
      fits[k] = length >= min && length <= max;
    }
    for (let i = 0; i < fits.length; i += 1) {
      if (fits[i]) counts[i]! += 1;
      for (let j = i + 1; j < fits.length; j += 1) if (fits[i] || fits[j]) either[i]![j]! += 1;
    }
  }
  const chances = counts.map((count) => count / Math.max(1, draws));
  let pair: Uncertainty['pair'] = null;
  either.forEach((row, i) =>
    row.forEach((count, j) => {
      const chance = count / Math.max(1, draws);
      // Of pairs as sure as one another, the one whose halves are surer.
      const better =
        !pair ||
        chance > pair.chance + 1e-9 ||
        (chance > pair.chance - 1e-9 &&
          chances[i]! + chances[j]! > chances[pair.both[0]]! + chances[pair.both[1]]! + 1e-9);
      if (j > i && better) pair = { both: [i, j], chance };
    }),
  );
  return { chances, pair, spread, draws };
}

/** A length that bounds the belts that fit, as drawn, and how it answers to each input. */
interface Edge {
  mm: number;
  slopes: readonly number[];
}

/** A belt fits if it is longer than all of `min` and no longer than `max`. */
interface Edges {
  min: Edge[];
  max: Edge;
}

/** Between the marks, or over the travel, and long enough to go on; and the ± of the path along the travel. */
function adjusterEdges(
  belt: Belt,
  { fits, lastOn }: Sizing,
  curve: LengthCurve,
  inputs: readonly Input[],
  slopes: Response['slopes'],
): { edges: Edges | null; spread: number[] } {
  const at = (fraction: number) => inputs.map((_, i) => between(slopes, i, fraction / curve.end));
  const points = curve.lengths.length - 1;
  const spread = curve.lengths.map((_, k) => deviation(inputs, at(k / points)));
  const [first, last] = [fits!.from, fits!.to].map((fraction) => pathLength(curve.travel.at(fraction), belt)) as [
    number | null,
    number | null,
  ];
  if (first === null || last === null || lastOn === null || fits!.to < fits!.from) return { edges: null, spread };
  return {
    edges: {
      min: [
        { mm: first, slopes: at(fits!.from) },
        { mm: lastOn.needsMm, slopes: at(0) },
      ],
      max: { mm: last, slopes: at(fits!.to) },
    },
    spread,
  };
}

/** On fixed centres: no longer than the path, and no shorter than it can be stretched. */
function fixedEdges(
  { fits }: Sizing,
  inputs: readonly Input[],
  slopes: readonly number[],
): { edges: Edges | null; spread: number[] } {
  if (!fits) return { edges: null, spread: [] };
  return {
    edges: { min: [{ mm: fits.from, slopes }], max: { mm: fits.to, slopes } },
    spread: [deviation(inputs, slopes)],
  };
}

function deviation(inputs: readonly Input[], slopes: readonly number[]): number {
  return Math.hypot(...inputs.map(({ sigma }, i) => sigma * slopes[i]!));
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

/** The response to input `i` at a fraction of the travel, between the points it was worked out at. */
function between(slopes: readonly (readonly number[])[], i: number, fraction: number): number {
  const at = Math.max(0, Math.min(STATIONS - 1, fraction * (STATIONS - 1)));
  const low = Math.min(STATIONS - 2, Math.floor(at));
  return slopes[low]![i]! + (slopes[low + 1]![i]! - slopes[low]![i]!) * (at - low);
}
