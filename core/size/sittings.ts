import { lengthCurve } from '../adjuster';
import type { Drive } from '../drive';
import { afterReading, figureAt, type JointNormal, normalOf, type Sum } from '../numeric';
import type { Section } from '../section';
import { GROWTH_DEFAULTS, type GrowthDefaults, grownAfter } from './growth';
import { readingsOn, timesOnPulleys } from './service';
import { tautFraction, tautLength, triedLengthMm } from './tried';

/** How one belt sat and grew while it was on, as read on the adjuster: mm, with one standard deviation of each. */
export interface Sitting {
  belt: string;
  section: string;
  lengthMm: number;
  /** Of the reading when it went on, which all that it grew is counted from. */
  sigmaMm: number;
  readings: { km: number; grewMm: number; sigmaMm: number }[];
}

/** No more than this many are weighed, the last ones first. */
export const MOST_SITTINGS = 200;

/** Every belt of a drive that was read when it went on and at least once since. */
export function sittingsOf(drive: Drive): Sitting[] {
  return drive.belts.flatMap((belt): Sitting[] => {
    if (!(belt.tried ?? []).some(({ kept }) => kept === true)) return [];
    const curve = lengthCurve(drive, belt);
    if (!curve) return [];
    return timesOnPulleys(drive, belt).flatMap((time): Sitting[] => {
      const lengthMm = triedLengthMm(belt, time.kept);
      const read = tautFraction(drive, curve, time.kept);
      const began = read && time.kept.worn !== true ? tautLength(belt, curve, read) : null;
      if (lengthMm === null || !began) return [];
      const readings = readingsOn(drive, belt, curve, time).map(({ km, drawnMm, sigmaMm }) => ({
        km,
        grewMm: drawnMm - began.drawnMm,
        sigmaMm,
      }));
      if (readings.length === 0) return [];
      return [
        { belt: belt.id, section: belt.section, lengthMm, sigmaMm: began.sigmaMm, readings: firstAndLast(readings) },
      ];
    });
  });
}

/** No more readings of one belt than this are remembered: the first tell its seating, the last its growth. */
const MOST_READINGS = 20;
const firstAndLast = <T>(list: readonly T[]): T[] =>
  list.filter((_, k) => k < MOST_READINGS / 2 || k >= list.length - MOST_READINGS / 2);

/** How much of a default's ± is one belt beside another; the rest is how sure the default itself is. A default. */
const BELT_BESIDE_BELT = Math.SQRT1_2;
/** The drawn slope of length against travel may be off by this, as a fraction. A default. */
const SLOPE = 0.05;
/** A reading that lies further from what was expected than this many standard deviations is a slip, and is left out. */
const SLIP = 4;

/**
 * How a new belt of a kind is to be expected to seat and grow, by Emery's default and a shop's own sittings: belts
 * scatter about a mean of their section by half of the default's variance, and the default is that sure of the mean
 * (normal about normal; a slip is left out). So few sittings stay near the default, and many do not. Null without any.
 */
export function learnedGrowth(kind: Section['kind'], sittings: readonly Sitting[]): Required<GrowthDefaults> | null {
  const counted = sittings.slice(0, MOST_SITTINGS).filter(({ readings }) => readings.length > 0);
  if (counted.length === 0) return null;
  const { seat, rate } = GROWTH_DEFAULTS[kind];
  const spread = [seat, rate].map(({ plusMinus }) => (1000 * plusMinus * BELT_BESIDE_BELT) ** 2);
  const start: JointNormal = {
    mean: [1000 * seat.fraction, 1000 * rate.fraction],
    covariance: [
      [figureAt(spread, 0), 0],
      [0, figureAt(spread, 1)],
    ],
  };
  const means = counted.reduce((known, sitting) => afterSitting(known, sitting, spread), start);
  const expected = (place: number) => ({
    fraction: Math.max(0, figureAt(means.mean, place) / 1000),
    plusMinus: Math.sqrt(figureAt(means.covariance[place] ?? [], place) + figureAt(spread, place)) / 1000,
  });
  return { seat: expected(0), rate: expected(1), sittings: counted.length };
}

/** The means of a section once one belt's readings are weighed; thousandths. */
function afterSitting(means: JointNormal, { lengthMm, sigmaMm, readings }: Sitting, spread: readonly number[]) {
  // Beside the two means: how far this belt is from them, and how far off it was read when it went on.
  const own = [...spread, sigmaMm ** 2];
  const size = means.mean.length;
  const start: JointNormal = {
    mean: [...means.mean, ...own.map(() => 0)],
    covariance: [
      ...means.covariance.map((row) => [...row, ...own.map(() => 0)]),
      ...own.map((variance, k) => [...means.mean.map(() => 0), ...own.map((_, j) => (j === k ? variance : 0))]),
    ],
  };
  const { mean, covariance } = readings.reduce<JointNormal>((figures, { km, grewMm, sigmaMm: sigma }) => {
    const { seated, grown } = grownAfter(km);
    const [seats, grows] = [(lengthMm * seated) / 1000, (lengthMm * grown) / 1000];
    const sum: Sum = [
      [0, seats],
      [1, grows],
      [size, seats],
      [size + 1, grows],
      [size + 2, -1],
    ];
    const expected = normalOf(figures, sum);
    const variance = sigma ** 2 + (SLOPE * expected.mean) ** 2;
    const isSlip = (grewMm - expected.mean) ** 2 > SLIP ** 2 * (expected.variance + variance);
    return isSlip ? figures : afterReading(figures, { sum, value: grewMm, variance });
  }, start);
  return {
    mean: mean.slice(0, size),
    covariance: covariance.slice(0, size).map((row) => row.slice(0, size)),
  };
}
