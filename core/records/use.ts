import { kmPer, type OdometerUnit } from '../drive';

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
const DAY_MS = 24 * 3600 * 1000;
/** What a calendar holds, ms since 1970: of other days there is no telling. */
const FIRST_MS = Date.UTC(1000, 0);
const LAST_MS = Date.UTC(9999, 0);
/** Readings nearer together than this tell nothing of the usual use, days. */
const LEAST_DAYS = 30;

/**
 * How far a vehicle usually goes: the least-squares slope through its dated readings, where they span a month or more
 * and it moves at all; else a default.
 */
export function usualUse(readings: readonly OdometerReading[], unit: OdometerUnit): UsualUse {
  const sorted = [...readings].sort((a, b) => a.at - b.at);
  const last = sorted.at(-1) ?? null;
  const days = sorted.length < 2 ? 0 : (last!.at - sorted[0]!.at) / DAY_MS;
  const slope = days >= LEAST_DAYS ? slopeOf(sorted) : 0;
  return slope > 0
    ? { perDay: slope, unit, from: 'readings', last }
    : { perDay: DEFAULT_KM_A_YEAR / 365 / kmPer(unit), unit, from: 'default', last };
}

/** Odometer over days. */
function slopeOf(readings: readonly OdometerReading[]): number {
  const mean = (of: (one: OdometerReading) => number) =>
    readings.reduce((sum, one) => sum + of(one), 0) / readings.length;
  const [at, odometer] = [mean((one) => one.at), mean((one) => one.odometer)];
  const over = readings.reduce((sum, one) => sum + (one.at - at) * (one.odometer - odometer), 0);
  const spread = readings.reduce((sum, one) => sum + (one.at - at) ** 2, 0);
  return spread > 0 ? (over / spread) * DAY_MS : 0;
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
