import { chanceBelow } from '../numeric';

/** One reading of a wearing figure. */
export interface WearReading {
  id: string;
  odometer: number;
  value: number;
  sigma: number;
  at: string | null;
}

/*
 * Wear seldom keeps its pace: a rib that has worn its crown carries its load on less and less, and goes the faster.
 * What is worn is taken to go with a power of the use, w = k (o − o₀)^p, and so w^(1/p) with the use itself: for each
 * power a straight line is laid through the readings, and each line counts by how well it lies and by how likely its
 * power is beforehand. How far the readings truly spread is not known either: what was said of it is worth a few
 * readings, and the readings' own misfit speaks beside it (Student's t).
 */

const { abs, exp, hypot, log, max, min, sqrt } = Math;

/** Powers of the use that wear is taken to go with: about a fifth more than even, one standard deviation. Defaults. */
const POWERS = Array.from({ length: 15 }, (_, k) => 0.8 + 0.1 * k);
const POWER = { at: 1.2, sigma: 0.35 };
/** The ± of a reading is itself worth so many readings. */
const WORTH = 3;
/** A new part's own figure is as good as this, mm, where the day it was fitted is known. */
const FRESH_SIGMA = 0.1;
/** Both ends of what holds nineteen times in twenty. */
const ENDS = [0.025, 0.975] as const;
/** An end further off than this many times the way that was seen is open. */
const FURTHEST = 40;
/** A bend is spoken for where its line lies so much better than the straight one, a chi-squared of one figure. */
const SPEAKS = 4;
const LEAST_BEND = 0.15;

/** A way of wearing: what is worn, to the power 1/`power`, lies on a line over the odometer. */
export interface WearBend {
  power: number;
  /** Of the line: its value at `odometer`, and its change over one of the odometer's unit. */
  odometer: number;
  value: number;
  rate: number;
}

interface Way extends WearBend {
  weight: number;
  misfit: number;
  scale: number;
  freedom: number;
  valueVariance: number;
  rateVariance: number;
}

/** What is worn at a reading of the odometer by a bend, mm. */
export const wornAt = ({ power, odometer, value, rate }: WearBend, at: number): number =>
  max(0, value + rate * (at - odometer)) ** power;

/** Where what is worn comes to `worn` mm by a bend. */
export const reaches = ({ power, odometer, value, rate }: WearBend, worn: number): number =>
  odometer + (worn ** (1 / power) - value) / rate;

/**
 * How a part wears by readings of what is worn, mm: where it comes to `limit` mm nineteen times in twenty, and the bend
 * where three readings or more speak for one. `fitted` is the odometer at which it was new; null where nobody knows.
 */
export function bendOf(
  readings: readonly Pick<WearReading, 'odometer' | 'sigma' | 'value'>[],
  limit: number,
  fitted: number | null,
): { from: number; to: number | null; bend: WearBend | null } {
  const first = readings[0]!.odometer;
  const anchored = fitted !== null && fitted < first;
  const points = [
    ...(anchored ? [{ odometer: fitted, value: 0, sigma: FRESH_SIGMA }] : []),
    ...readings.map(({ odometer, value, sigma }) => ({ odometer, value, sigma })),
  ];
  const ways = POWERS.map((power) => wayOf(points, power));
  const highest = max(...ways.map(({ weight }) => weight));
  const weights = ways.map(({ weight }) => exp(weight - highest));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const chanceBy = (at: number) =>
    ways.reduce((sum, way, k) => sum + weights[k]! * chanceReached(way, limit, at), 0) / total;
  const last = readings[readings.length - 1]!.odometer;
  const span = last - points[0]!.odometer;
  const [from, to] = ENDS.map((end) => firstWhere((at) => chanceBy(at) >= end, last - span, last + FURTHEST * span));
  return { from: from ?? last + FURTHEST * span, to: to ?? null, bend: spokenFor(ways, readings.length) };
}

function wayOf(points: readonly { odometer: number; value: number; sigma: number }[], power: number): Way {
  const lined = points.map(({ odometer, value, sigma }) => {
    // Near nothing worn a power has no slope: a reading is no finer there than its ± itself.
    const worn = max(value, 0.25 * sigma);
    const slope = (1 / power) * max(worn, sigma) ** (1 / power - 1);
    return { odometer, z: worn ** (1 / power), weight: (slope * sigma) ** -2 };
  });
  const all = lined.reduce((sum, { weight }) => sum + weight, 0);
  const mean = (value: (point: (typeof lined)[number]) => number) =>
    lined.reduce((sum, point) => sum + point.weight * value(point), 0) / all;
  const [odometer, value] = [mean((point) => point.odometer), mean((point) => point.z)];
  const spread = max(1e-12, all * mean((point) => (point.odometer - odometer) ** 2));
  const rate = (all * mean((point) => (point.odometer - odometer) * (point.z - value))) / spread;
  const misfit = lined.reduce(
    (sum, point) => sum + point.weight * (point.z - value - rate * (point.odometer - odometer)) ** 2,
    0,
  );
  const freedom = WORTH + lined.length - 2;
  return {
    power,
    odometer,
    value,
    rate,
    weight: -0.5 * ((power - POWER.at) / POWER.sigma) ** 2 - 0.5 * freedom * log(WORTH + misfit),
    misfit,
    scale: sqrt((WORTH + misfit) / freedom),
    freedom,
    valueVariance: 1 / all,
    rateVariance: 1 / spread,
  };
}

/** How likely a way has come to its limit at a reading of the odometer. */
function chanceReached(way: Way, limit: number, at: number): number {
  const off = at - way.odometer;
  const sigma = way.scale * hypot(sqrt(way.valueVariance), sqrt(way.rateVariance) * off);
  return chanceOfT((way.value + way.rate * off - limit ** (1 / way.power)) / sigma, way.freedom);
}

/** The chance below a figure of Student's t (D. L. Wallace's normal equivalent, to a few thousandths). */
function chanceOfT(t: number, freedom: number): number {
  const z = sqrt(freedom * log(1 + (t * t) / freedom)) * ((8 * freedom + 1) / (8 * freedom + 3));
  return chanceBelow(t < 0 ? -z : z);
}

/** The first place where something holds, between two; null where it does nowhere. Wider steps further out. */
function firstWhere(holds: (at: number) => boolean, from: number, to: number): number | null {
  const steps = 240;
  const place = (k: number) => from + (to - from) * (k / steps) ** 3;
  for (let k = 0; k <= steps; k += 1) {
    if (!holds(place(k))) continue;
    let [low, high] = [place(max(0, k - 1)), place(k)];
    for (let half = 0; half < 30; half += 1) {
      const middle = (low + high) / 2;
      if (holds(middle)) high = middle;
      else low = middle;
    }
    return high;
  }
  return null;
}

/** The bend that readings speak for: one whose line lies much better than the straight one. */
function spokenFor(ways: readonly Way[], count: number): WearBend | null {
  if (count < 3) return null;
  const straight = ways.reduce((near, way) => (abs(way.power - 1) < abs(near.power - 1) ? way : near));
  const best = ways.reduce((top, way) => (way.weight > top.weight ? way : top));
  const better = (straight.misfit - best.misfit) / max(1, best.scale ** 2);
  if (abs(best.power - 1) < LEAST_BEND || better < SPEAKS || !(best.rate > 0)) return null;
  const { power, odometer, value, rate } = best;
  return { power: min(2.2, power), odometer, value, rate };
}
