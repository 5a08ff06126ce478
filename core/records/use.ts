import { kmPer, type OdometerUnit } from '../drive';
import { median } from '../numeric';
import { DAY_MS } from '../quantity';

/** One dated reading of an odometer: ms since 1970, and what it showed, in its own unit. */
export interface OdometerReading {
  at: number;
  odometer: number;
}

/** How a vehicle is used: how far it goes in a day, in its odometer's unit, and what that rests on. */
export interface UsualUse {
  perDay: number;
  unit: OdometerUnit;
  from: 'readings' | 'default';
  /** The last reading; null without one. */
  last: OdometerReading | null;
}

/** How far a vehicle goes in a year where no readings tell, km. A default. */
export const DEFAULT_KM_A_YEAR = 15_000;
/** What a calendar holds, ms since 1970: of other days there is no telling. */
const FIRST_MS = Date.UTC(1000, 0);
const LAST_MS = Date.UTC(9999, 0);
/** Readings nearer together than this tell nothing of the usual use, days. */
const LEAST_DAYS = 30;

/** No vehicle goes further in a day, km: past that a reading was mistyped, or is another odometer's. */
const MOST_KM_A_DAY = 2000;
/** So many readings are enough for a slope: the latest of more. */
const MOST_READINGS = 200;

/**
 * How far a vehicle usually goes: the median slope between its dated readings (Theil and Sen), where they span a month
 * or more and it moves at all; else a default. A reading that the most others cannot be true with, as one typed ten
 * times too high, counts for nothing.
 */
export function usualUse(readings: readonly OdometerReading[], unit: OdometerUnit): UsualUse {
  const sorted = [...readings].sort((a, b) => a.at - b.at).slice(-MOST_READINGS);
  const likely = likelyReadings(sorted, MOST_KM_A_DAY / kmPer(unit));
  const last = likely.at(-1) ?? null;
  const days = likely.length < 2 ? 0 : (last!.at - likely[0]!.at) / DAY_MS;
  const slope = days >= LEAST_DAYS ? medianSlope(likely) : 0;
  return slope > 0
    ? { perDay: slope, unit, from: 'readings', last }
    : { perDay: DEFAULT_KM_A_YEAR / 365 / kmPer(unit), unit, from: 'default', last };
}

/**
 * The most readings that can all be true: none lower than one before it, none further on than a vehicle goes in the
 * time. Of as many, those that end lower: a slip of the keys adds a digit.
 */
function likelyReadings(sorted: readonly OdometerReading[], mostPerDay: number): OdometerReading[] {
  const chains: { count: number; before: number }[] = [];
  sorted.forEach((next, k) => {
    const best = { count: 1, before: -1 };
    for (let j = 0; j < k; j += 1) {
      const step = next.odometer - sorted[j]!.odometer;
      const days = (next.at - sorted[j]!.at) / DAY_MS;
      if (step < 0 || step > mostPerDay * (days + 1) || chains[j]!.count < best.count) continue;
      best.count = chains[j]!.count + 1;
      best.before = j;
    }
    chains.push(best);
  });
  let end = -1;
  chains.forEach(({ count }, k) => {
    const max = end < 0 ? 0 : chains[end]!.count;
    if (count > max || (count === max && sorted[k]!.odometer < sorted[end]!.odometer)) end = k;
  });
  const likely: OdometerReading[] = [];
  for (let k = end; k >= 0; k = chains[k]!.before) likely.unshift(sorted[k]!);
  return likely;
}

/** Odometer over days: the median of the slopes between any two readings of different days. */
function medianSlope(readings: readonly OdometerReading[]): number {
  const slopes = readings.flatMap((from, k) =>
    readings.slice(k + 1).flatMap((to) => {
      const days = (to.at - from.at) / DAY_MS;
      return days >= 1 ? [(to.odometer - from.odometer) / days] : [];
    }),
  );
  return median(slopes) ?? 0;
}

/**
 * The day on which an odometer comes to a reading, by the usual use from the last reading on, ISO 8601; null without a
 * last reading, and beyond a hundred years.
 */
export function dayAt(odometer: number, { perDay, last }: UsualUse): string | null {
  if (!last || !(perDay > 0)) return null;
  const days = (odometer - last.odometer) / perDay;
  const at = last.at + days * DAY_MS;
  return Math.abs(days) > 36_525 ? null : dayOf(at);
}

/** The day of a moment, ISO 8601; null outside the calendar. */
export const dayOf = (ms: number): string | null =>
  ms >= FIRST_MS && ms < LAST_MS ? new Date(ms).toISOString().slice(0, 10) : null;
