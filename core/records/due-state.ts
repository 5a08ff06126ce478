import type { OdometerUnit } from '../drive';
import { dayAt, dayOf, type UsualUse } from './use';
import { DAY_MS, grouped } from '../quantity';

/** What can be due on a drive. */
export const DUE_KINDS = ['change', 'set-again', 'look', 'listen', 'wear', 'life'] as const;
export type DueKind = (typeof DUE_KINDS)[number];

/**
 * What is due: by a day, by a reading of the odometer, or whichever comes first. `text` is whole, without figures in
 * the shop's unit of length.
 */
export interface Due {
  /** Its name on its drive: the same while the thing is due, whatever its words. */
  key: string;
  kind: DueKind;
  text: string;
  belt: string | null;
  /** ISO 8601, a day. */
  day: string | null;
  odometer: number | null;
  /** Null where the drive does not say what its odometer counts: then the vehicle's. */
  unit: OdometerUnit | null;
  /** Written down by somebody, forecast from readings, or a default. */
  from: 'written' | 'forecast' | 'default';
  /** One standard deviation of the odometer's reading, of a forecast. */
  plusMinus: number | null;
}

/** When something due is expected: its day, or the day its odometer comes to by the usual use, the earlier of both. */
export interface Expected {
  day: string | null;
  by: 'day' | 'odometer' | null;
}

/**
 * The day on which something is due on a vehicle. An odometer in another unit than the vehicle's is not held against
 * it.
 */
export function expectedOf({ day, odometer, unit }: Pick<Due, 'day' | 'odometer' | 'unit'>, use: UsualUse): Expected {
  const comes = odometer !== null && (unit ?? use.unit) === use.unit ? dayAt(odometer, use) : null;
  if (comes !== null && (day === null || comes < day)) return { day: comes, by: 'odometer' };
  return { day, by: day === null ? null : 'day' };
}

/** Ahead of its day something is soon due for so many days. */
export const SOON_DAYS = 30;
/** The last day that counts as soon. */
export const soonFrom = (today: string): string => dayOf(Date.parse(today) + SOON_DAYS * DAY_MS) ?? today;
/** Further ahead nothing is listed: by then all of it will have been worked out anew. */
const LISTED_YEARS = 5;
/** The last day of which anything is listed. */
export const listedUntil = (today: string): string =>
  dayOf(Date.parse(today) + LISTED_YEARS * 365.25 * DAY_MS) ?? today;
export type DueState = 'due' | 'soon' | 'later' | 'no day';

/** Where something due stands on a day; it is due as well once the vehicle's odometer has come to it. */
export function dueState(
  due: Pick<Due, 'odometer' | 'unit'> & { expected: string | null },
  today: string,
  vehicle: { odometer: number | null; unit: OdometerUnit },
): DueState {
  const passed =
    due.odometer !== null &&
    vehicle.odometer !== null &&
    (due.unit ?? vehicle.unit) === vehicle.unit &&
    vehicle.odometer >= due.odometer;
  if (passed) return 'due';
  if (due.expected === null) return 'no day';
  if (due.expected <= today) return 'due';
  return due.expected <= soonFrom(today) ? 'soon' : 'later';
}

export const DUE_STATE_WORDS: Record<DueState, { mark: string; word: string }> = {
  due: { mark: '▲', word: 'due' },
  soon: { mark: '●', word: 'soon' },
  later: { mark: '○', word: 'later' },
  'no day': { mark: '○', word: 'no day yet' },
};

/** By what it is due, in a line: `by 2026-12-24, or at 149,030 km`. */
export function dueBy({ day, odometer, unit, from, plusMinus }: Due, vehicleUnit: OdometerUnit): string {
  const counts = unit ?? vehicleUnit;
  const figure = (value: number) => grouped(Math.round(value));
  const reading =
    odometer === null ? '' : `at ${figure(odometer)} ${counts}${plusMinus === null ? '' : ` ± ${figure(plusMinus)}`}`;
  const both = [day === null ? '' : `by ${day}`, reading].filter(Boolean).join(', or ');
  if (both === '') return 'at the next opportunity';
  return from === 'default' ? `${both} (a default)` : both;
}
