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
