/** A press is there within this of where it should be, mm: what a feeler tells. A default. */
export const PRESSED_WITHIN = 0.15;

/** How a pulley that is being pressed stands. Lengths mm. */
export interface PressState {
  /** What the feeler, or the washer behind the pulley, should measure when it is right. */
  targetMm: number;
  /** Still to go: above 0 out, below 0 in. */
  leftMm: number;
  verdict: 'there' | 'left' | 'past';
}

/**
 * A press job by the gap behind the pulley: `gapMm` measured at the start and `nowMm` now, and `moveMm` that it is to
 * go, out is +. Past once it went further than it should, by more than a feeler tells.
 */
export function pressState({ gapMm, moveMm, nowMm }: { gapMm: number; moveMm: number; nowMm: number }): PressState {
  const targetMm = gapMm + moveMm;
  const leftMm = targetMm - nowMm;
  if (Math.abs(leftMm) <= PRESSED_WITHIN) return { targetMm, leftMm, verdict: 'there' };
  return { targetMm, leftMm, verdict: leftMm * moveMm < 0 ? 'past' : 'left' };
}
