import { type Belt, type Drive, momentOf, ofBeltNow, type TensionReading } from '../drive';
import type { Figure } from '../numeric';
import { type StaticBelt, staticBeltOf } from '../loads';
import { type ArmHealth, armHealth } from './arm-health';
import { type CombinedTension, combineReadings, type Meaning, meaningOf } from './readings';
import type { Hand } from './ways';

/** A reading with what it means. */
export interface ToldReading {
  way: TensionReading['way'];
  reading: TensionReading;
  meaning: Meaning;
}

/** Of readings those that tell something of the belt, with what they mean; by a default hand where none is given. */
export function meaningsOf(
  drive: Drive,
  standing: StaticBelt,
  readings: readonly TensionReading[],
  hand?: Hand,
): ToldReading[] {
  return readings.flatMap((reading) => {
    const meaning = meaningOf(drive, standing, reading, hand);
    return typeof meaning === 'string' ? [] : [{ way: reading.way, reading, meaning }];
  });
}

/** Readings further apart than this are of two sittings, ms. */
const SITTING_MS = 12 * 3600 * 1000;

/** Readings in the order of the file, those of one sitting together: taken within half a day, of a belt of one age. */
export function sittingsOf(readings: readonly TensionReading[]): TensionReading[][] {
  return readings.reduce<TensionReading[][]>((sittings, reading) => {
    const last = sittings.at(-1);
    if (last && ofOneSitting(reading, last.at(-1)!)) last.push(reading);
    else sittings.push([reading]);
    return sittings;
  }, []);
}

/** The readings of the last sitting: of the belt as it was then, within half a day of the last one. */
export function latestOf(readings: readonly TensionReading[]): readonly TensionReading[] {
  const last = readings.at(-1);
  return readings.filter((reading) => ofOneSitting(reading, last!));
}

function ofOneSitting(a: TensionReading, b: TensionReading): boolean {
  const time = ({ at }: TensionReading) => momentOf(at) ?? 0;
  return a.when === b.when && Math.abs(time(a) - time(b)) <= SITTING_MS;
}

/** The readings of the belt that is on now: those of one that came off tell nothing of it. */
export function readingsNow(drive: Drive, { id, tensionReadings = [] }: Belt): readonly TensionReading[] {
  return tensionReadings.filter((reading) => ofBeltNow(drive, id, reading));
}

/** What the last sitting says of a belt's tension; null where nothing was read that tells it. */
export function measuredTension(drive: Drive, belt: Belt): CombinedTension | null {
  const readings = readingsNow(drive, belt);
  const standing = readings.length > 0 ? staticBeltOf(drive, belt.id) : null;
  return standing && combineReadings(meaningsOf(drive, standing, latestOf(readings)));
}

/** What the last sitting read of a sprung arm: where its pointer stood, and its belt's tension turned either way. */
export interface ArmReadings {
  pointer: number | null;
  forward: Figure | null;
  back: Figure | null;
  plain: Figure | null;
}

export function armReadings(drive: Drive, standing: StaticBelt, hand?: Hand): ArmReadings {
  const latest = latestOf(readingsNow(drive, standing.belt));
  const meanings = meaningsOf(drive, standing, latest, hand).filter(({ way }) => way !== 'pointer');
  const turnedOnly = (turned: 'forward' | 'back' | undefined) =>
    combineReadings(meanings.filter(({ reading }) => reading.turned === turned));
  const pointers = latest.filter((reading) => reading.way === 'pointer');
  return {
    forward: turnedOnly('forward'),
    back: turnedOnly('back'),
    plain: turnedOnly(undefined),
    pointer: pointers.at(-1)?.degrees ?? null,
  };
}

/** What those readings make of the arm; null where its pointer was not read. */
export function armHealthRead(drive: Drive, standing: StaticBelt): ArmHealth | null {
  const { pointer, forward, back, plain } = armReadings(drive, standing);
  if (pointer === null) return null;
  const turned = forward ?? back;
  return armHealth(drive, standing.belt.id, pointer, {
    ...(forward && { forward }),
    ...(back && { back }),
    ...(plain && !turned && { plain }),
  });
}
