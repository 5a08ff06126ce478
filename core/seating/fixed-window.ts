import { defaultSetting, stiffnessN } from '../adjuster';
import type { Belt } from '../drive';
import { newBeltAt, newBeltFigures, type TensionWindow } from '../loads';
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
  tension: {
    leastN: number;
    setN: number;
    mostN: number;
    /** Set where the first of its shafts carries no more. */
    held: { station: string; limitN: number } | null;
    /** Whether the loads of the drive ask for that, or a default of the section. */
    byLoads: boolean;
  } | null;
}

/** What the loads ask of a belt and its shafts carry, as its drive's window has it. */
export interface Asked extends Pick<TensionWindow, 'leastN' | 'mostN'> {
  /** The shaft that carries no more than `mostN`, and its limit, N. */
  first?: { station: string; limitN: number } | null;
}

/** Whether a belt is made to stretch on over fixed centres, as its marking says. */
export function isStretchFit({ section, build }: Pick<Belt, 'section' | 'build'>): boolean {
  return build === 'stretch' && sectionFor(section)?.kind === 'ribbed';
}

/**
 * Which lengths are right on fixed centres whose path is so long. A belt that cannot be set again is chosen by the
 * tension that its length makes: near the setting of a new belt, no more than the shafts carry, and no less than a belt
 * that is to be set again. The setting is what the loads ask for; a default of the section where nobody knows them, or
 * where no tension suits both loads and shafts. Teeth need none. One that is made to stretch on goes by its length.
 */
export function fixedWindow(belt: Belt, section: Section, pathMm: number, asked: Asked | null = null): FixedWindow {
  if (isStretchFit(belt)) {
    const shortest = lengthAtStretch(pathMm, section, STRETCHES_ON.stretchFit);
    return { from: shortest, to: pathMm, shortest, tension: null };
  }
  const stiffness = stiffnessN(belt);
  const carried = asked?.mostN ?? Infinity;
  const byLoads = asked && newBeltFigures(asked);
  const { setN, runInN, againBelowN } = byLoads ?? newBeltAt(defaultSetting(belt));
  const mostN = Math.min(MOST_OVER_SETTING * newBeltAt(runInN).setN, carried);
  const leastN = section.kind === 'toothed' ? 0 : Math.min(againBelowN, mostN);
  const shortest = lengthAtStretch(pathMm, section, STRETCHES_ON[section.kind]);
  const from = Math.max(shortest, lengthAtStretch(pathMm, section, mostN / stiffness));
  return {
    from,
    // What no belt can be stretched to leaves the tightest that goes on.
    to: Math.max(from, lengthAtStretch(pathMm, section, leastN / stiffness)),
    shortest,
    tension: {
      leastN,
      setN: Math.min(setN, mostN),
      mostN,
      held: mostN === carried ? (asked?.first ?? null) : null,
      byLoads: byLoads !== null,
    },
  };
}

/** The marked length that a path stretches by a fraction, both in the section's own basis, mm. */
export function lengthAtStretch(pathMm: number, section: Section, fraction: number): number {
  const basis = markedLengthMm(0, section);
  return (pathMm - basis) / (1 + fraction) + basis;
}
