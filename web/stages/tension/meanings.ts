import { hand } from './hand';
import type { Drive, TensionReading } from '@emery/core/drive';
import { type Meaning, meaningOf, type Standing } from '@emery/core/tension';

/** Of readings those that tell something of the belt, with what they mean. */
export function meaningsOf(
  drive: Drive,
  standing: Standing,
  readings: readonly TensionReading[],
): { way: TensionReading['way']; reading: TensionReading; meaning: Meaning }[] {
  return readings.flatMap((reading) => {
    const meaning = meaningOf(drive, standing, reading, hand.get());
    return typeof meaning === 'string' ? [] : [{ way: reading.way, reading, meaning }];
  });
}

/** Readings further apart than this are of two sittings, ms. */
const SITTING_MS = 12 * 3600 * 1000;

/** The readings of the last sitting: of the belt as it was then, within half a day of the last one. */
export function latestOf(readings: readonly TensionReading[]): readonly TensionReading[] {
  const last = readings.at(-1);
  const time = ({ at }: TensionReading) => (at === undefined ? 0 : Date.parse(at));
  return readings.filter((one) => one.when === last!.when && Math.abs(time(one) - time(last!)) <= SITTING_MS);
}
