import { changePulley, moveStation } from '../drive/edit';
import type { Belt, Drive } from '../drive/types';
import { combinedDiameter } from '../survey/diameters';
import type { SurveyFit } from '../survey/fit';
import type { LengthCurve } from './curve';
import { pathLength } from './curve';
import type { Sizing } from './size';

/** Taken where nothing was measured: of a place on the drawing, of a diameter, mm; and of a belt's length, as a share of it. One standard deviation each. Defaults. */
export const DEFAULT_DOUBT = { placeMm: 1.5, diameterMm: 0.5, beltShare: 0.0015 };

export interface Doubt {
  /** By candidate, the chance that it fits, 0 to 1. */
  chances: number[];
  /** The two candidates of which one fits most surely, by their place in the list, and that chance; null where fewer than two are in question. */
  pair: { both: [number, number]; chance: number } | null;
  /** Standard deviation of the path at shares 0, 1/n … 1 of the travel, mm. */
  spread: number[];
  draws: number;
}

export interface DoubtOptions {
  /** The survey's fit, for the ± of places. */
  fit?: SurveyFit | null;
  /** How sure the length is with what was measured of it, over how sure the drawing alone is. Default 1. */
  certainty?: number;
  draws?: number;
  seed?: number;
  onProgress?: (share: number) => void;
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
 * Monte Carlo over everything that was measured with a doubt, and the belts' own tolerance. How the path answers to each input is worked out once at a few points of the
 * travel (it is all but straight over a few mm); the draws then cost next to nothing. Draws are the same for the same seed.
 */
export function doubtOf(drive: Drive, belt: Belt, sizing: Sizing, options: DoubtOptions = {}): Doubt {
  const { curve, candidates, lastOn } = sizing;
  const draws = options.draws ?? 10_000;
  if (!curve) return { chances: candidates.map(({ verdict }) => Number(verdict === 'fits')), pair: null, spread: [], draws: 0 };
  const inputs = inputsOf(drive, belt, options.fit ?? null).map((input) => ({ ...input, sigma: input.sigma * (options.certainty ?? 1) }));
  const shares = Array.from({ length: STATIONS }, (_, k) => k / (STATIONS - 1));
  const slopes = shares.map((share) => inputs.map((input) => slopeAt(curve, belt, share, input)));
  const points = curve.lengths.length - 1;
  const spread = curve.lengths.map((_, k) => Math.hypot(...inputs.map(({ sigma }, i) => sigma * between(slopes, i, k / points))));

  const { marks } = curve.travel;
  const [from, to] = marks ? [marks.short, marks.long] : [0, curve.peak ?? 1];
  const [atFrom, atTo] = [pathLength(curve.travel.at(from), belt), pathLength(curve.travel.at(to), belt)];
  if (atFrom === null || atTo === null || lastOn === null) return { chances: candidates.map(() => 0), pair: null, spread, draws: 0 };
  const [slopeFrom, slopeTo, slopeOn] = [from, to, 0].map((share) => inputs.map((_, i) => between(slopes, i, share))) as [number[], number[], number[]];
  const normal = normals(options.seed ?? 1);
  const sum = (slope: readonly number[], drawn: readonly number[]) => slope.reduce((total, value, i) => total + value * drawn[i]!, 0);
  const counts = candidates.map(() => 0);
  const either = candidates.map(() => candidates.map(() => 0));
  for (let draw = 0; draw < draws; draw += 1) {
    if (draw % 1000 === 0) options.onProgress?.(draw / draws);
    const drawn = inputs.map(({ sigma }) => sigma * normal());
    const least = Math.max(atFrom + sum(slopeFrom, drawn), lastOn.needsMm + sum(slopeOn, drawn));
    const most = atTo + sum(slopeTo, drawn);
    const fits = candidates.map(({ lengthMm }) => {
      const length = lengthMm * (1 + DEFAULT_DOUBT.beltShare * normal());
      return length >= least && length <= most;
    });
    for (let i = 0; i < fits.length; i += 1) {
      if (fits[i]) counts[i]! += 1;
      for (let j = i + 1; j < fits.length; j += 1) if (fits[i] || fits[j]) either[i]![j]! += 1;
    }
  }
  const chances = counts.map((count) => count / Math.max(1, draws));
  let pair: Doubt['pair'] = null;
  either.forEach((row, i) =>
    row.forEach((count, j) => {
      const chance = count / Math.max(1, draws);
      // Of pairs as sure as one another, the one whose halves are surer.
      const better = !pair || chance > pair.chance + 1e-9 || (chance > pair.chance - 1e-9 && chances[i]! + chances[j]! > chances[pair.both[0]]! + chances[pair.both[1]]! + 1e-9);
      if (j > i && better) pair = { both: [i, j], chance };
    }),
  );
  return { chances, pair, spread, draws };
}

/** Places and diameters of all pulleys on the belt; the adjuster moves its own shaft, so that one's place is its pivot's doubt. */
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
      const places = station.role === 'crankshaft' ? [] : [
        { with: move(1, 0), sigma: known?.plusMinusX ?? DEFAULT_DOUBT.placeMm },
        { with: move(0, 1), sigma: known?.plusMinusY ?? DEFAULT_DOUBT.placeMm },
      ];
      const sizes = station.pulleys.filter(({ id, surface }) => on.has(id) && surface !== 'toothed').map(({ id }): Input => ({
        with: (sized, by) => {
          const now = sized.stations.flatMap(({ pulleys }) => pulleys).find((pulley) => pulley.id === id)!;
          return changePulley(sized, id, { diameter: (now.diameter ?? 0) + by });
        },
        sigma: combinedDiameter(drive, id)?.plusMinus ?? DEFAULT_DOUBT.diameterMm,
      }));
      return [...places, ...sizes];
    });
}

function slopeAt({ travel }: LengthCurve, belt: Belt, share: number, input: Input): number {
  const drive = travel.at(share);
  const [more, less] = [pathLength(input.with(drive, STEP), belt), pathLength(input.with(drive, -STEP), belt)];
  return more === null || less === null ? 0 : (more - less) / (2 * STEP);
}

/** The response to input `i` at a share of the travel, between the points it was worked out at. */
function between(slopes: readonly (readonly number[])[], i: number, share: number): number {
  const at = Math.max(0, Math.min(STATIONS - 1, share * (STATIONS - 1)));
  const low = Math.min(STATIONS - 2, Math.floor(at));
  return slopes[low]![i]! + (slopes[low + 1]![i]! - slopes[low]![i]!) * (at - low);
}

/** Normal deviates from a small linear congruential generator (Numerical Recipes) by Box and Muller. */
function normals(seed: number): () => number {
  let state = seed >>> 0;
  const uniform = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
  let spare: number | null = null;
  return () => {
    if (spare !== null) {
      const value = spare;
      spare = null;
      return value;
    }
    const radius = Math.sqrt(-2 * Math.log(uniform()));
    const angle = 2 * Math.PI * uniform();
    spare = radius * Math.sin(angle);
    return radius * Math.cos(angle);
  };
}
