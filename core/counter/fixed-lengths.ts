import { stiffnessN } from '../adjuster';
import { fixedWindow, isStretchFit, lengthAtStretch } from '../seating';
import type { BeltBuild, Section } from '../section';
import { askedBelt } from './asked-belt';
import { type Bounds, type LengthAsked, type LengthsToAsk, rankedLengths } from './lengths';
import { commonWindows } from './what-it-drives';

/**
 * Which lengths to ask for where the centres are fixed: by the tension that each makes, over what belts commonly drive,
 * for at the counter nobody knows what this one does. A belt that is made to stretch on goes by its length.
 */
export function lengthsOnFixed(
  section: Section,
  answer: LengthAsked,
  { stock, ribs, build }: { stock?: readonly number[]; ribs?: number | null; build?: BeltBuild } = {},
): LengthsToAsk {
  const belt = askedBelt(section.name, ribs, build);
  const windows = isStretchFit(belt) ? [] : commonWindows(belt);
  return rankedLengths(section, answer, stock, (markedMm) =>
    (windows.length === 0 ? [null] : windows).map((window): Bounds => {
      const { from, to, tension } = fixedWindow(belt, section, markedMm, window);
      const aim = tension ? lengthAtStretch(markedMm, section, tension.setN / stiffnessN(belt)) : (from + to) / 2;
      return { min: { mm: from, sigma: 0 }, max: to, aim };
    }),
  );
}
