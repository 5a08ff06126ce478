import { MM_PER_INCH, readNumber } from '../quantity';
import { halfGrooveAngle } from '../section';

/** A length on a rule divided in so many parts of an inch, and how far that is from the length itself, mm. */
export interface OnRule {
  denominator: 16 | 32 | 64;
  mm: number;
  offMm: number;
}

/** The nearest marks on the usual inch rules. */
export function onRules(mm: number): OnRule[] {
  return ([16, 32, 64] as const).map((denominator) => {
    const step = MM_PER_INCH / denominator;
    const near = Math.round(mm / step) * step;
    return { denominator, mm: near, offMm: near - mm };
  });
}

export type PitchReading = { ok: true; mm: number } | { ok: false; problem: string };

/** No thread of an adjuster is coarser, mm a turn. */
const MOST_PITCH_MM = 10;

/** A thread's pitch as it is written: `1.5`, `1.5 mm`, or threads an inch, `24 tpi`. Up to 10 mm. */
export function parsePitch(text: string): PitchReading {
  const [, figure, unit] =
    /^([\d.,]+)\s*(mm|tpi|threads(?: an| per|\/)? ?inch)?$/.exec(text.trim().toLowerCase()) ?? [];
  const inch = unit !== undefined && unit !== 'mm';
  const read = figure === undefined ? null : readNumber(figure, { min: 0, max: inch ? 1000 : MOST_PITCH_MM });
  const value = read?.ok ? read.value : 0;
  const mm = inch && value > 0 ? MM_PER_INCH / value : value;
  return mm > 0 && mm <= MOST_PITCH_MM
    ? { ok: true, mm }
    : { ok: false, problem: 'Pitch: write mm a turn such as 1.5, or threads an inch such as 24 tpi; 10 mm at most.' };
}

/** How far a nut goes in so many turns of threads of these pitches, mm: a link with two threads moves by both. */
export function turnsToMm(turns: number, pitches: readonly number[]): number {
  return turns * pitches.reduce((sum, pitch) => sum + pitch, 0);
}

/**
 * How much larger a split sheave's running diameter gets by taking out shims of a thickness, mm: twice
 * t / (2·tan(half the groove angle)). The groove angle in degrees.
 */
export function shimToDiameter(thicknessMm: number, grooveAngle: number): number {
  return thicknessMm / Math.tan(halfGrooveAngle({ grooveAngle }));
}

/** The diameter behind a length taped once round, mm; `tapeMm` is how thick the tape is, which lies outside it. */
export function aroundToDiameter(aroundMm: number, tapeMm = 0): number {
  return aroundMm / Math.PI - tapeMm;
}
