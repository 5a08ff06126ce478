import { type Drive, pulleysById } from '../drive';
import { bodyRadiusMm } from '../section';
import {
  type Alignment,
  alongOf,
  datumOf,
  guides,
  type Plane,
  quadratic,
  readingsOf,
  riseGradient,
  TOOL_SIGMA,
} from '../planes';
import { toDegrees } from '../numeric';

/** A reading that would tell something: where to take it, and what it leaves of the doubt. */
export interface NextReading {
  pulley: string;
  /** The place on the rim, degrees counter-clockwise from +x, −180 to 180. */
  at: number;
  /** The angles of the runs it touches: root of the mean square of their ±, before and after, degrees. */
  beforeDeg: number;
  afterDeg: number;
}

/** Where on a rim a reading is thought of: every so many degrees. */
const STEP_DEG = 45;
/** An angle that is known to within this needs no more readings, degrees. */
const WELL_KNOWN_DEG = 0.12;

/**
 * The next readings that tell most, the best first, one a pulley: those that take most off the doubt of the angles of
 * the runs it guides, read by a straightedge. Empty once all angles are well known.
 */
export function nextReadings(drive: Drive, alignment: Alignment, sigma = TOOL_SIGMA.straightedge): NextReading[] {
  const { belt, planes, section } = alignment;
  const datum = datumOf(drive, belt.id);
  const known = pulleysById(drive);
  const seen = new Set<string>();
  return belt.route
    .flatMap((stop, at): (NextReading & { gain: number })[] => {
      const { pulley } = stop;
      if (pulley === datum || seen.has(pulley) || !guides(drive, stop)) return [];
      seen.add(pulley);
      const plane = planes[at]!;
      const slopes = slopesOf(alignment, at);
      const doubt = (covariance: readonly number[]) =>
        slopes.reduce((sum, slope) => sum + quadratic(covariance, slope), 0);
      const before = doubt(plane.covariance);
      const radius = bodyRadiusMm(known.get(pulley)!.pulley, section);
      const places = Array.from({ length: 360 / STEP_DEG }, (_, k) => k * STEP_DEG);
      const after = places.map((place) => doubt(withReading(plane, (place * Math.PI) / 180, radius, sigma)));
      const best = after.reduce((min, value, k) => (value < after[min]! - 1e-15 ? k : min), 0);
      const meanDeg = (variance: number) => toDegrees(Math.sqrt(Math.max(0, variance) / slopes.length));
      const [beforeDeg, afterDeg] = [meanDeg(before), meanDeg(after[best]!)];
      if (slopes.length === 0 || beforeDeg < WELL_KNOWN_DEG) return [];
      const place = places[best]!;
      return [{ pulley, at: place > 180 ? place - 360 : place, beforeDeg, afterDeg, gain: before - after[best]! }];
    })
    .sort((a, b) => b.gain - a.gain)
    .map(({ gain: _, ...reading }) => reading);
}

/** How the angles of the runs at a pulley go with its plane: one row each end of each run it guides. */
function slopesOf({ solution, planes, runs }: Alignment, at: number): number[][] {
  const { centre } = planes[at]!;
  return runs.flatMap(({ fromAt, toAt, spans, lengthMm }) => {
    const [first, last] = [solution.spans[fromAt]!, solution.spans[spans.at(-1)!]!];
    const length = Math.max(lengthMm, 1e-3);
    const rows: number[][] = [];
    for (const [mine, sign, touch, span] of [
      [fromAt === at, -1, first.start, first],
      [toAt === at, 1, last.end, last],
    ] as const) {
      if (!mine) continue;
      const rise = riseGradient(centre, touch, sign / length);
      const along = alongOf(span);
      rows.push([rise[0]!, rise[1]! - along.x, rise[2]! - along.y], rise);
    }
    return rows;
  });
}

/** The covariance of a plane after one more reading at a place of its rim. */
function withReading({ covariance }: Plane, at: number, radius: number, sigma: number): number[] {
  const row = [1, radius * Math.cos(at), radius * Math.sin(at)];
  const gain = [0, 1, 2].map((i) => row.reduce((sum, part, j) => sum + covariance[3 * i + j]! * part, 0));
  const expected = sigma ** 2 + row.reduce((sum, part, i) => sum + part * gain[i]!, 0);
  return covariance.map((value, k) => value - (gain[Math.floor(k / 3)]! * gain[k % 3]!) / expected);
}

/**
 * Where to read with the engine pulling: the pulleys that were read at rest and not yet under load, each where it was
 * read first, so that the two can be compared.
 */
export function nextLoadedReadings(drive: Drive, { belt }: Pick<Alignment, 'belt'>): { pulley: string; at: number }[] {
  return [...new Set(belt.route.map(({ pulley }) => pulley))].flatMap((pulley) => {
    const [first] = readingsOf(drive, pulley);
    return first && readingsOf(drive, pulley, 'load').length === 0 ? [{ pulley, at: first.at ?? 90 }] : [];
  });
}

const PLACES = ['right', 'top right', 'top', 'top left', 'left', 'bottom left', 'bottom', 'bottom right'] as const;

/** The places on a rim that are read, degrees counter-clockwise from +x, each by its name as seen from the front. */
export const RIM_PLACES = PLACES.map((name, k) => ({
  at: k * STEP_DEG > 180 ? k * STEP_DEG - 360 : k * STEP_DEG,
  name,
}));

const turnOf = (at: number) => ((at % 360) + 360) % 360;

/** The name of the place on a rim that is nearest to an angle, degrees counter-clockwise from +x. */
export const nearestPlace = (at: number): string => PLACES[Math.round(turnOf(at) / STEP_DEG) % PLACES.length]!;

/** Where on a rim that is, in words; `null` in the middle. */
export function placeWords(at: number | null | undefined): string {
  if (at === null || at === undefined) return 'at the hub';
  return turnOf(at) % STEP_DEG === 0 ? `at the ${nearestPlace(at)}` : `near the ${nearestPlace(at)} (${at}°)`;
}
