import { fixed } from './habits';
import { editableNumber } from './number';

/** The unit a shop works in; files always hold mm. */
export type LengthUnit = 'mm' | 'in';

export const MM_PER_INCH = 25.4;

/** A length in whole inches and a reduced fraction; `numerator` is 0 for a whole inch. */
export interface InchParts {
  negative: boolean;
  inches: number;
  numerator: number;
  denominator: number;
}

/** Splits `mm` into inches and a fraction rounded to the nearest 1/`denominator` (a power of two), reduced. */
export function inchParts(mm: number, denominator = 16): InchParts {
  const steps = Math.round((Math.abs(mm) / MM_PER_INCH) * denominator);
  const inches = Math.floor(steps / denominator);
  let numerator = steps % denominator;
  let reduced = denominator;
  while (numerator > 0 && numerator % 2 === 0) {
    numerator /= 2;
    reduced /= 2;
  }
  return { negative: mm < 0 && steps > 0, inches, numerator, denominator: reduced };
}

/** `169.9` mm → `6 11/16"`, to the nearest 1/`denominator` inch. */
export function formatInches(mm: number, denominator = 16): string {
  const { negative, inches, numerator, denominator: reduced } = inchParts(mm, denominator);
  const fraction = numerator > 0 ? `${numerator}/${reduced}` : '';
  const digits = [inches > 0 || fraction === '' ? `${inches}` : '', fraction].filter(Boolean).join(' ');
  return `${negative ? '-' : ''}${digits}"`;
}

/** `169.9` mm → `6.69"`. */
export function formatInchesDecimal(mm: number, places = 2): string {
  return `${unsignedZero(mm / MM_PER_INCH, places)}"`;
}

/** `169.9` mm → `169.9 mm`. */
export function formatMm(mm: number, places = 1): string {
  return `${unsignedZero(mm, places)} mm`;
}

/** Shorter than this a length is told in decimals, mm: a sixteenth of an inch is too coarse for it. */
const FINE_MM = 12.7;

/** What was understood of a length that is being written, in both units: `reads 6 11/16" · 169.9 mm`. */
export function readsAs(mm: number): string {
  const fine = Math.abs(mm) < FINE_MM && mm !== 0;
  return fine
    ? `reads ${formatInchesDecimal(mm, 3)} · ${formatMm(mm, 2)}`
    : `reads ${formatInches(mm)} · ${formatMm(mm)}`;
}

/** One length in one unit, ready to show: inches as a fraction, mm with `places` decimals. */
export function formatLength(mm: number, unit: LengthUnit, places = 1): string {
  return unit === 'in' ? formatInches(mm) : formatMm(mm, places);
}

/**
 * The text a field starts from. It reads back to within 0.01 mm of `mm`: a fraction only where the length really is
 * one to the 64th, otherwise decimals, so that opening and leaving a field never moves a pulley.
 */
export function editableLength(mm: number, unit: LengthUnit): string {
  if (unit === 'mm') return trimmed(mm, 2);
  const sixtyFourths = (mm / MM_PER_INCH) * 64;
  if (Math.abs(sixtyFourths - Math.round(sixtyFourths)) * (MM_PER_INCH / 64) < 0.005) return formatInches(mm, 64);
  return `${trimmed(mm / MM_PER_INCH, 4)}"`;
}

function trimmed(value: number, places: number): string {
  return editableNumber(Number(value.toFixed(places)));
}

/** A fixed figure without a minus sign in front of a rounded zero. */
function unsignedZero(value: number, places: number): string {
  return Number(value.toFixed(places)) === 0 ? fixed(0, places) : fixed(value, places);
}
