import { type Belt, type Check, type Drive, type InspectFinding, momentOf } from '../drive';
import { odometerDoubt, DAY_MS } from '../quantity';
import { bendOf, reaches, type WearBend, type WearReading } from './bend';
import { type Limits, limitsOf, sigmaOfFinding } from './limits';
import { weightedLine } from '../numeric';

/** The checks whose figures wear away with the distance. */
const WEARS = ['rib-depth', 'ride'] as const satisfies Check[];

/** What is left until the limit, in the odometer's unit, with one standard deviation. */
export interface Left {
  /** The reading of the odometer at which it is done. */
  odometer: number;
  distance: number;
  plusMinus: number;
  /** Nineteen times in twenty between these; `to` is null where the readings leave the far end open. */
  from: number;
  to: number | null;
  /** The day it comes to, ISO 8601, from the distance a day between first and last reading; null without dates. */
  day: string | null;
}

/** How a belt wears: its readings over the odometer, and the line through them. */
export interface Wear {
  check: (typeof WEARS)[number];
  limits: Limits;
  readings: WearReading[];
  /** Value at `odometer`, change of it over one of the odometer's unit, and the variances of both; null before two. */
  line: { odometer: number; value: number; rate: number; valueVariance: number; rateVariance: number } | null;
  left: Left | null;
  /** The bend that three readings or more speak for: what is left goes by it, and no more by the line. */
  bend: WearBend | null;
  /** Why nothing is told of what is left; or that the readings do not lie on one line. */
  told: 'one-reading' | 'no-wear' | 'odometer-doubted' | null;
  /**
   * Of two readings a slip of the pen apart: the one that is doubted, and the one before it; nothing is told by them.
   */
  doubted: { odometer: number; before: number } | null;
  uneven: boolean;
  /** Readings before a figure sprang back to less worn: of another belt, and left out. */
  before: number;
}

/** A figure that is less worn than the one before by more standard deviations than this is another belt's. */
const SPRANG_BACK = 3;
/** Of a normal figure, nineteen times in twenty within so many standard deviations. */
const NINETEEN = 1.96;
/** Lines that fit worse than this (a chi-squared over its degrees of freedom) are told. */
const UNEVEN = 4;

/**
 * How a belt wears, by the figure that tells it, from its readings with an odometer. Null without one. `now` is where
 * the odometer stands; at the last reading where it is left out.
 */
export function wearOf(
  drive: Drive,
  belt: Belt,
  findings: readonly InspectFinding[],
  { now, material }: { now?: number | undefined; material?: string } = {},
): Wear | null {
  const all = WEARS.flatMap((check) => {
    const limits = limitsOf(drive, check, { belt, material });
    const wear = limits && wearBy(check, limits, findings, belt.care?.fittedOdometer ?? null, now);
    return wear ? [wear] : [];
  });
  // Where two figures wear, the one that comes to its end first counts.
  return all.reduce<Wear | null>((best, wear) => {
    if (!best) return wear;
    if (!wear.left) return best;
    return !best.left || wear.left.distance < best.left.distance ? wear : best;
  }, null);
}

/** Readings whose days nobody kept may lie so many apart, and no more is held against what lies between them. */
const DAYS_UNKNOWN = 200;

/**
 * The first reading whose odometer is odd beside the one before it by date, as with a digit too many; null where none
 * is.
 */
function doubtedOf(readings: readonly WearReading[]): Wear['doubted'] {
  const dated = readings.map((reading) => ({ ...reading, ms: momentOf(reading.at ?? undefined) }));
  const known = dated.every(({ ms }) => ms !== null);
  if (known) dated.sort((a, b) => a.ms! - b.ms!);
  for (let k = 1; k < dated.length; k += 1) {
    const [before, here] = [dated[k - 1]!, dated[k]!];
    const days = known ? (here.ms! - before.ms!) / DAY_MS : DAYS_UNKNOWN;
    if (odometerDoubt(here.odometer, before.odometer, days) !== null)
      return { odometer: here.odometer, before: before.odometer };
  }
  return null;
}

/** What was read by one check at a known odometer, by distance. */
function readingsOf(check: Wear['check'], findings: readonly InspectFinding[]): WearReading[] {
  return findings
    .flatMap((finding): WearReading[] => {
      const { id, odometer, value, at } = finding;
      return finding.check !== check || odometer === undefined || value === undefined
        ? []
        : [{ id, odometer, value, at: at ?? null, sigma: Math.max(1e-3, sigmaOfFinding(finding)) }];
    })
    .sort((a, b) => a.odometer - b.odometer);
}

function wearBy(
  check: Wear['check'],
  limits: Limits,
  findings: readonly InspectFinding[],
  fitted: number | null,
  now?: number,
): Wear | null {
  const all = readingsOf(check, findings);
  if (all.length === 0) return null;
  const before = firstOfThisBelt(all, limits.lowIsWorn);
  const readings = all.slice(before);
  const wear: Wear = {
    check,
    limits,
    readings,
    line: null,
    left: null,
    bend: null,
    told: null,
    doubted: null,
    uneven: false,
    before,
  };
  const doubted = doubtedOf(readings);
  if (doubted) return { ...wear, told: 'odometer-doubted', doubted };
  const line = lineThrough(readings);
  if (!line) return { ...wear, told: 'one-reading' };
  const worn = limits.lowIsWorn ? -line.rate : line.rate;
  const { rate, value, valueVariance, rateVariance, odometer } = line;
  const misfit = readings.reduce(
    (sum, reading) => sum + ((reading.value - value - rate * (reading.odometer - odometer)) / reading.sigma) ** 2,
    0,
  );
  const uneven = readings.length > 2 && misfit / (readings.length - 2) > UNEVEN;
  if (worn <= 0) return { ...wear, line, told: 'no-wear', uneven };
  const last = readings[readings.length - 1]!;
  const limit = limits.replace!;
  const atLimit = (limit - value) / rate;
  // Readings that lie further apart than their ± tell no better than they agree.
  const scale = readings.length > 2 ? Math.sqrt(Math.max(1, misfit / (readings.length - 2))) : 1;
  const sigma = (scale * Math.sqrt(valueVariance + rateVariance * atLimit ** 2)) / worn;
  const start = now ?? last.odometer;
  const { bend, ...span } = spanOf(readings, limits, { line, worn, scale, fitted });
  const end = bend && limits.fresh !== null ? reaches(bend, Math.abs(limits.fresh - limit)) : odometer + atLimit;
  const left: Left = {
    odometer: end,
    distance: Math.max(0, end - start),
    plusMinus: sigma,
    from: Math.max(0, span.from - start),
    to: span.to === null ? null : Math.max(0, span.to - start),
    day: dayOf(readings, end),
  };
  return { ...wear, line, left, bend, uneven };
}

/** Where it comes to its limit nineteen times in twenty, by readings of the odometer; and the bend, if one is seen. */
function spanOf(
  readings: readonly WearReading[],
  { fresh, replace, lowIsWorn }: Limits,
  {
    line,
    worn,
    scale,
    fitted,
  }: { line: NonNullable<Wear['line']>; worn: number; scale: number; fitted: number | null },
): { from: number; to: number | null; bend: WearBend | null } {
  if (fresh === null || fresh === replace) {
    // Without what a new one has there is nothing to be worn from: a straight line is all there is.
    const margin = lowIsWorn ? line.value - replace! : replace! - line.value;
    const span = within(margin, worn, scale ** 2 * line.valueVariance, scale ** 2 * line.rateVariance);
    return {
      from: line.odometer + span.from,
      to: span.to === null ? null : line.odometer + span.to,
      bend: null,
    };
  }
  const way = lowIsWorn ? 1 : -1;
  const wornBy = readings.map(({ odometer, value, sigma }) => ({ odometer, sigma, value: way * (fresh - value) }));
  return bendOf(wornBy, way * (fresh - replace!), fitted);
}

/** Where this belt's own readings begin: after the last that is less worn than the one before it. */
function firstOfThisBelt(readings: readonly WearReading[], lowIsWorn: boolean): number {
  let first = 0;
  for (let k = 1; k < readings.length; k += 1) {
    const [a, b] = [readings[k - 1]!, readings[k]!];
    const back = (b.value - a.value) * (lowIsWorn ? 1 : -1);
    if (b.odometer > a.odometer && back > SPRANG_BACK * Math.hypot(a.sigma, b.sigma)) first = k;
  }
  return first;
}

/** The weighted least-squares line through the readings; null where they are all at one odometer. */
function lineThrough(readings: readonly WearReading[]): Wear['line'] {
  const line = weightedLine(
    readings.map(({ odometer, value, sigma }) => ({ x: odometer, y: value, weight: sigma ** -2 })),
  );
  if (!(line.spread > 0) || readings.every((reading) => reading.odometer === readings[0]!.odometer)) return null;
  const { x: odometer, y: value, slope: rate, weight, spread } = line;
  return { odometer, value, rate, valueVariance: 1 / weight, rateVariance: 1 / spread };
}

/**
 * Where a worn line meets its limit, nineteen times in twenty, from the readings' middle on (E. C. Fieller's interval
 * of a ratio). `margin` is what is left in the middle, `worn` what goes of it over one of the odometer's unit.
 */
function within(
  margin: number,
  worn: number,
  marginVariance: number,
  wornVariance: number,
): { from: number; to: number | null } {
  const [m, w] = [NINETEEN ** 2 * marginVariance, NINETEEN ** 2 * wornVariance];
  // (margin − worn u)² = m + w u²
  const [a, b, c] = [worn ** 2 - w, margin * worn, margin ** 2 - m];
  const inner = b ** 2 - a * c;
  if (a <= 0) {
    // It may not wear at all, so far as the readings go: only the near end is told.
    const root = a === 0 ? c / (2 * b) : (b - Math.sqrt(inner)) / a;
    const near = margin <= 0 || inner < 0 || c <= 0 ? -Infinity : root;
    return { from: near, to: null };
  }
  const root = Math.sqrt(Math.max(0, inner));
  return { from: (b - root) / a, to: (b + root) / a };
}

/** A day further off than this is no forecast, years. */
const MOST_YEARS = 50;

/** The day the odometer comes to a reading, by the distance a day between the first dated reading and the last. */
function dayOf(readings: readonly WearReading[], odometer: number): string | null {
  const dated = readings
    .map((reading) => ({ ms: momentOf(reading.at ?? undefined), odometer: reading.odometer }))
    .filter((dated): dated is { ms: number; odometer: number } => dated.ms !== null);
  const [first, last] = [dated[0], dated[dated.length - 1]];
  if (!first || !last) return null;
  const days = (last.ms - first.ms) / DAY_MS;
  const distance = last.odometer - first.odometer;
  if (!(days >= 1) || !(distance > 0)) return null;
  const then = last.ms + ((odometer - last.odometer) / distance) * days * DAY_MS;
  return Math.abs(then - last.ms) > MOST_YEARS * 366 * DAY_MS ? null : new Date(then).toISOString().slice(0, 10);
}
