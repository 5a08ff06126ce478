import { addBelt, addStation, type Belt, changeBelt, type Drive, newDrive, newStation, type Role } from '../drive';
import { askedBelt } from './asked-belt';
import { type NewBeltFigures, newBeltFigures, type TensionWindow, usualSetting, usualWindow } from '../loads';

/** What a belt may be said to drive at the counter. */
export const DRIVABLE = [
  'alternator',
  'water-pump',
  'power-steering',
  'ac-compressor',
  'fan',
  'air-pump',
  'vacuum-pump',
] as const satisfies readonly Role[];
export type Drivable = (typeof DRIVABLE)[number];

/** What belts commonly drive: between the lightest and the heaviest lies a belt of which nobody said it. */
const COMMON: readonly (readonly Drivable[])[] = [
  ['water-pump'],
  ['vacuum-pump'],
  ['alternator'],
  ['alternator', 'water-pump'],
  ['power-steering'],
  ['alternator', 'water-pump', 'power-steering'],
  ['ac-compressor'],
  ['alternator', 'water-pump', 'power-steering', 'ac-compressor'],
];
/** The shafts stand round a circle so large, mm, which gives each the wrap that is usual. A default. */
const AROUND_MM = 190;

/**
 * A drive of starting sizes whose belt runs round the crank and those accessories, for their loads alone: nobody's
 * engine.
 */
function typicalDrive(belt: Belt, drives: readonly Drivable[]): Drive {
  const roles: readonly Role[] = ['crankshaft', ...drives];
  const empty = addBelt(newDrive(''), belt);
  const built = roles.reduce<Drive>((drive, role, k) => {
    const angle = -Math.PI / 2 - (2 * Math.PI * k) / Math.max(3, roles.length);
    return addStation(
      drive,
      newStation(drive, role, AROUND_MM * Math.cos(angle), AROUND_MM * Math.sin(angle), belt.section),
    );
  }, empty);
  return changeBelt(built, belt.id, {
    route: built.stations.map(({ pulleys }) => ({ pulley: pulleys[0]!.id, side: 'drive' as const })),
  });
}

/**
 * What a new belt that drives all that is set to, by Tension's own sums over default loads; null where none is right.
 */
export function settingFor(belt: Belt, drives: readonly Drivable[]): NewBeltFigures | null {
  return usualSetting(typicalDrive(belt, drives), belt.id);
}

/**
 * The windows of a belt of which nobody said what it drives: of each of what belts commonly drive that it can. Each is
 * as likely as the next.
 */
export function commonWindows({ section, ribs }: Pick<Belt, 'section' | 'ribs'>): readonly TensionWindow[] {
  const key = `${section} ${ribs ?? ''}`;
  const known = windowsKnown.get(key);
  if (known) return known;
  const belt = askedBelt(section, ribs);
  const found = COMMON.flatMap((drives) => {
    const window = usualWindow(typicalDrive(belt, drives), belt.id);
    return window && newBeltFigures(window) ? [window] : [];
  });
  windowsKnown.set(key, found);
  return found;
}
/** The sums of a section and a count of ribs stay what they are, and are asked for at every key. */
const windowsKnown = new Map<string, readonly TensionWindow[]>();

/** Between which settings such a belt lies: the lightest and the heaviest of them. */
export function settingRange(belt: Belt): { min: NewBeltFigures; max: NewBeltFigures } | null {
  const all = commonWindows(belt)
    .map((window) => newBeltFigures(window)!)
    .sort((a, b) => a.setN - b.setN);
  return all.length === 0 ? null : { min: all[0]!, max: all.at(-1)! };
}
