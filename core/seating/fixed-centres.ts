import { limitOrDefault } from '../accessory';
import { pathLength } from '../adjuster';
import type { Belt, Drive } from '../drive';
import { usualWindow } from '../loads';
import type { Section } from '../section';
import { type FixedWindow, fixedWindow } from './fixed-window';

/** The lengths that are right for a belt on its drive, whose path is `longer` than drawn, mm; null without a path. */
export function fixedWindowOf(drive: Drive, belt: Belt, section: Section, longer = 0): FixedWindow | null {
  const drawn = pathLength(drive, belt);
  if (drawn === null) return null;
  const path = drawn + longer;
  const window = usualWindow(drive, belt.id);
  const station = window?.most && drive.stations.find(({ id }) => id === window.most!.station);
  return fixedWindow(
    belt,
    section,
    path,
    window && {
      leastN: window.leastN,
      mostN: window.mostN,
      first: station ? { station: station.id, limitN: limitOrDefault(station)! } : null,
    },
  );
}

/** Whether somebody said that the centres are fixed: a shaft of the belt has that for its adjuster. */
export function centresAreFixed({ stations }: Drive, { route }: Pick<Belt, 'route'>): boolean {
  return stations.some(
    ({ adjuster, pulleys }) =>
      adjuster?.kind === 'fixed' && pulleys.some(({ id }) => route.some(({ pulley }) => pulley === id)),
  );
}
