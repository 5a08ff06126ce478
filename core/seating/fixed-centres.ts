import { limitOrDefault } from '../accessory';
import { defaultSetting, NEW_BELT_FACTOR, pathLength, SET_AGAIN_FRACTION, stiffnessN } from '../adjuster';
import type { Belt, Drive } from '../drive';
import { solveBelt } from '../path';
import { markedLengthMm, type Section, sectionFor } from '../section';

/**
 * On fixed centres a belt is stretched on by no more than this fraction: a belt made for it by much, the cords of any
 * other by little. Defaults.
 */
const STRETCHES_ON = { stretchFit: 0.03, ribbed: 0.015, vee: 0.008, toothed: 0.002 };
/**
 * Over the setting of a new belt by more than this, a belt wears its bearings out in a third of their life. Default.
 */
const MOST_OVER_SETTING = 1.5;

/** The tensions between which a belt on fixed centres is right at rest, N, and the lengths that make them, mm. */
export interface FixedWindow {
  /** The shortest and the longest marked length that is right. */
  from: number;
  to: number;
  /** The shortest that goes on at all. */
  shortest: number;
  /** Null of a belt that is made to stretch on, whose stiffness nobody knows: it goes by its length alone. */
  tension: { leastN: number; setN: number; mostN: number; held: { station: string; limitN: number } | null } | null;
}

/** Whether a belt is made to stretch on over fixed centres, as its marking says. */
export function isStretchFit({ section, build }: Pick<Belt, 'section' | 'build'>): boolean {
  return build === 'stretch' && sectionFor(section)?.kind === 'ribbed';
}

/**
 * Which lengths are right on fixed centres whose path is so long. A belt that cannot be set again is chosen by the
 * tension that its length makes: near the setting of a new belt, no more than the shafts bear (`bears`), and no less
 * than a belt that is to be set again. Teeth need none. One that is made to stretch on goes by its length.
 */
export function fixedWindow(
  belt: Belt,
  section: Section,
  pathMm: number,
  bears: { station: string; tensionN: number; limitN: number } | null = null,
): FixedWindow {
  if (isStretchFit(belt)) {
    const shortest = lengthAtStretch(pathMm, section, STRETCHES_ON.stretchFit);
    return { from: shortest, to: pathMm, shortest, tension: null };
  }
  const stiffness = stiffnessN(belt);
  const runIn = defaultSetting(belt);
  const wanted = NEW_BELT_FACTOR * runIn;
  const mostN = Math.min(MOST_OVER_SETTING * wanted, bears?.tensionN ?? Infinity);
  const leastN = section.kind === 'toothed' ? 0 : Math.min(SET_AGAIN_FRACTION * runIn, mostN);
  const shortest = lengthAtStretch(pathMm, section, STRETCHES_ON[section.kind]);
  return {
    from: Math.max(shortest, lengthAtStretch(pathMm, section, mostN / stiffness)),
    to: lengthAtStretch(pathMm, section, leastN / stiffness),
    shortest,
    tension: {
      leastN,
      setN: Math.min(wanted, mostN),
      mostN,
      held: bears !== null && mostN === bears.tensionN ? { station: bears.station, limitN: bears.limitN } : null,
    },
  };
}

/** The marked length that a path stretches by a fraction, both in the section's own basis, mm. */
export function lengthAtStretch(pathMm: number, section: Section, fraction: number): number {
  const basis = markedLengthMm(0, section);
  return (pathMm - basis) / (1 + fraction) + basis;
}

/**
 * The tension at rest that the first of a belt's shafts bears no more than, N, by what its maker says or else the
 * default of its kind: a shaft is pulled by the resultant of the spans that meet it. Null where no shaft has a limit.
 */
export function shaftsBear(drive: Drive, belt: Belt): { station: string; tensionN: number; limitN: number } | null {
  const { spans, contacts } = solveBelt(drive, belt.id)!;
  const along = spans.map(({ start, end, length }) =>
    length ? { x: (end.x - start.x) / length, y: (end.y - start.y) / length } : { x: 0, y: 0 },
  );
  const pulls = new Map<string, { x: number; y: number }>();
  contacts.forEach(({ station }, k) => {
    const [arriving, leaving] = [along[(k + along.length - 1) % along.length]!, along[k]!];
    const { x, y } = pulls.get(station) ?? { x: 0, y: 0 };
    pulls.set(station, { x: x + leaving.x - arriving.x, y: y + leaving.y - arriving.y });
  });
  return [...pulls].reduce<{ station: string; tensionN: number; limitN: number } | null>((first, [id, { x, y }]) => {
    const limitN = limitOrDefault(drive.stations.find((station) => station.id === id)!);
    const share = Math.hypot(x, y);
    if (limitN === undefined || share < 1e-6) return first;
    const tensionN = limitN / share;
    return first === null || tensionN < first.tensionN ? { station: id, tensionN, limitN } : first;
  }, null);
}

/** The same window of a belt on its drive as drawn; null without a path. */
export function fixedWindowOf(drive: Drive, belt: Belt, section: Section): FixedWindow | null {
  const path = pathLength(drive, belt);
  return path === null ? null : fixedWindow(belt, section, path, shaftsBear(drive, belt));
}

/** Whether somebody said that the centres are fixed: a shaft of the belt has that for its adjuster. */
export function centresAreFixed({ stations }: Drive, { route }: Pick<Belt, 'route'>): boolean {
  return stations.some(
    ({ adjuster, pulleys }) =>
      adjuster?.kind === 'fixed' && pulleys.some(({ id }) => route.some(({ pulley }) => pulley === id)),
  );
}
