import { grouped, written } from './habits';
/** What was understood of a written figure, or in plain words why nothing was. */
export type NumberReading =
  | { ok: true; value: number }
  /** `twoWays` where it could be read two ways, and the problem is a question. */
  | { ok: false; problem: string; twoWays: boolean };

export interface NumberWanted {
  /**
   * It counts whole things by the hundred, such as an odometer or rev/min: a sign before three digits parts thousands.
   */
  whole?: boolean;
  /** What the field accepts: of two readings the one that lies outside cannot be meant. */
  min?: number;
  max?: number;
}

/** Spaces that part thousands, as people and programs write them; and the Swiss apostrophe. */
const PARTING = /[\u00a0\u2009\u202f'\u2019]/g;
/** One sign before exactly three digits: it may part the thousands, or begin the decimals. */
const EITHER = /^(-?)([1-9]\d{0,2})([.,])(\d{3})$/;

/**
 * Reads a plain figure as it is written here or there: `1250`, `1 250`, `1,250.5`, `1.250,5`, `12,5`. One comma or
 * point before exactly three digits can be read two ways; where neither the kind of field nor what it accepts decides,
 * it is asked about and not guessed. Every field for a plain figure reads by this. Never throws.
 */
export function readNumber(
  text: string,
  { whole = false, min = -Infinity, max = Infinity }: NumberWanted = {},
): NumberReading {
  const plain = text
    .normalize('NFKC')
    .trim()
    .replace(/[\u2212\u2010-\u2014]/g, '-')
    .replace(PARTING, ' ')
    .replace(/^(-?\d{1,3}(?: \d{3})+)(?!\d)/, (grouped) => grouped.replace(/ /g, ''));
  const either = EITHER.exec(plain);
  if (either) {
    const [, sign, lead, mark, rest] = either;
    const [thousands, decimal] = [Number(`${sign}${lead}${rest}`), Number(`${sign}${lead}.${rest}`)];
    const fits = (value: number) => value >= min && value <= max;
    if (whole || (fits(thousands) && !fits(decimal))) return { ok: true, value: thousands };
    if (fits(decimal) && !fits(thousands)) return { ok: true, value: decimal };
    return {
      ok: false,
      twoWays: true,
      problem: twoWays(`${sign}${lead}${mark}${rest}`, `${sign}${lead}${rest}`, `${sign}${lead}.${rest}`),
    };
  }
  const tidy = withoutThousands(plain);
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(tidy)
    ? { ok: true, value: Number(tidy) }
    : { ok: false, twoWays: false, problem: `"${text.trim().slice(0, 24)}" is not a number.` };
}

/** The question about a figure that can be read two ways, with a way to write either. */
export function twoWays(written: string, thousands: string, decimal: string): string {
  return `${written} could be ${thousands} or ${decimal}. Write ${thousands}, or ${decimal}0 for the smaller one.`;
}

/**
 * A figure as a field starts from it, so that it is read back as it was: never one sign before exactly three digits.
 */
export function editableNumber(value: number): string {
  const text = written(value);
  return EITHER.test(text) ? `${text}0` : text;
}

/** No vehicle goes further in a day, in any unit an odometer counts. */
const MOST_A_DAY = 2500;
/** So far it may have gone whatever the days between say: a day may be written down wrongly as well. */
const ALWAYS_POSSIBLE = 5000;
/** Between two readings of which nobody knows the days. */
const MOST_AT_ALL = 500_000;

/**
 * What is odd about a reading of an odometer beside the one before it; null where nothing is. With the days between the
 * two, it is held against what a vehicle goes in them; without, against what a digit too many makes of it.
 */
export function odometerDoubt(
  reading: number,
  last: number | null,
  days: number | null = null,
): 'below' | 'far-above' | null {
  if (last === null) return null;
  if (reading < last) return 'below';
  const went = reading - last;
  if (days !== null) return went > Math.max(ALWAYS_POSSIBLE, MOST_A_DAY * (days + 1)) ? 'far-above' : null;
  // A digit too many makes it ten times as much; no vehicle does that between two looks once it has run a while.
  return (last >= ALWAYS_POSSIBLE && reading >= 5 * last) || went > MOST_AT_ALL ? 'far-above' : null;
}

/** The same in words, for the field that it is written in; null where nothing is odd. */
export function odometerDoubtWords(reading: number, last: number | null, unit: string): string | null {
  const doubt = odometerDoubt(reading, last);
  if (doubt === null) return null;
  const [here, before] = [reading, last!].map((value) => grouped(value));
  return doubt === 'below'
    ? `${here} ${unit} is below the last reading, ${before} ${unit}.`
    : `${here} ${unit} is far above the last reading, ${before} ${unit}: a digit too many?`;
}

/** A figure without the signs that part its thousands, its decimals behind a point. */
function withoutThousands(plain: string): string {
  if (/^-?[1-9]\d{0,2}(,\d{3})+(\.\d*)?$/.test(plain)) return plain.replace(/,/g, '');
  const points = /^-?[1-9]\d{0,2}(\.\d{3})+(,\d*)?$/.test(plain);
  return (points ? plain.replace(/\./g, '') : plain).replace(',', '.');
}
