import type { LongerThanDrawn } from '../adjuster';
import type { Drive } from '../drive';
import { sizeBelt, type Verdict } from './size-belt';

/** A belt's marked length that no hand gets onto the drive. */
export interface MarkedMisfit {
  lengthMm: number;
  /** Too short to be slipped on, or longer than anything takes up. */
  verdict: Extract<Verdict, 'will-not-go-on' | 'out-of-travel'>;
}

/**
 * Whether a belt's own marked length cannot be fitted to the drive as drawn, or so much `longer` where that was
 * measured. Null where it can, where no length is marked, and where nobody said how the belt is tightened. Size knows
 * how much: what job card, Tension and bring list say of a marked length is its `markedMisfitOf`.
 */
export function markedMisfit(drive: Drive, beltId: string, longer?: LongerThanDrawn): MarkedMisfit | null {
  const lengthMm = drive.belts.find(({ id }) => id === beltId)?.length;
  if (!lengthMm) return null;
  const verdict = sizeBelt(drive, beltId, { lengths: [lengthMm], ...(longer && { longer }) })?.candidates[0]?.verdict;
  return verdict === 'will-not-go-on' || verdict === 'out-of-travel' ? { lengthMm, verdict } : null;
}
