import { type LengthUnit, MM_PER_INCH } from './format-length';
import { twoWays } from './number';

/** What was understood, in mm, or in plain words why nothing was. */
export type LengthReading = { ok: true; mm: number } | { ok: false; problem: string };

const ACCEPTED = 'Write a length such as 6 11/16, 5\' 8 1/2", 169.9 mm or 17 cm.';

const VULGAR: Record<string, string> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};

/** The fractions a tape, a steel rule or a drawing is divided in. Anything else is a slip of the pen. */
const DIVISIONS = new Set([2, 4, 8, 10, 16, 32, 64, 100]);

const UNITS = new Map(
  Object.entries({
    mm: 1,
    millimetre: 1,
    millimetres: 1,
    millimeter: 1,
    millimeters: 1,
    cm: 10,
    m: 1000,
    '"': MM_PER_INCH,
    in: MM_PER_INCH,
    inch: MM_PER_INCH,
    inches: MM_PER_INCH,
    "'": 12 * MM_PER_INCH,
    ft: 12 * MM_PER_INCH,
    feet: 12 * MM_PER_INCH,
    foot: 12 * MM_PER_INCH,
  }),
);

/** Nothing on an engine that is measured for a belt is longer. */
const LONGEST_BELT_MM = 20_000;

const NUMBER = String.raw`\d+(?:\.\d*)?|\.\d+`;
const FRACTION = String.raw`(\d+)/(\d+)`;
const SIMPLE = new RegExp(String.raw`^(${NUMBER})\s*([a-z"']*)\.?$`);
const MIXED = new RegExp(String.raw`^(?:(\d+)(?:\s*-\s*|\s+))?${FRACTION}\s*([a-z"]*)\.?$`);
/** `5 1/2'`: the fraction is of a foot. */
const MIXED_FEET = new RegExp(String.raw`^(?:(\d+)(?:\s*-\s*|\s+))?${FRACTION}\s*(?:'|ft\.?|feet|foot)$`);
const FEET = new RegExp(String.raw`^(${NUMBER})\s*(?:'|ft\.?|feet|foot)\s*-?\s*(.+)$`);

/**
 * Reads a length the way it is written on a bench: `6 11/16`, `6-11/16"`, `5' 8 1/2"`, `169.9`, `169.9 mm`, `17cm`.
 * A bare number is in `bareUnit`; a fraction is always inches. Never throws: what cannot be read comes back as a
 * problem in plain words, and so does what could be read two ways.
 */
export function parseLength(text: string, bareUnit: LengthUnit): LengthReading {
  const plain = normalise(text);
  if (plain === '') return problem(`Nothing written yet. ${ACCEPTED}`);
  const negative = plain.startsWith('-');
  const reading = readUnsigned(negative ? plain.slice(1).trim() : plain, bareUnit);
  if (!reading.ok || !negative) return reading;
  return { ok: true, mm: reading.mm === 0 ? 0 : -reading.mm };
}

function readUnsigned(text: string, bareUnit: LengthUnit): LengthReading {
  const wholeFeet = MIXED_FEET.exec(text);
  if (wholeFeet) {
    const inches = readMixed(wholeFeet[1], wholeFeet[2]!, wholeFeet[3]!, '');
    return inches.ok ? finite(12 * inches.mm) : inches;
  }
  const feet = FEET.exec(text);
  if (feet) return readFeet(feet[1]!, feet[2]!);
  const mixed = MIXED.exec(text);
  if (mixed) return readMixed(mixed[1], mixed[2]!, mixed[3]!, mixed[4]!);
  const simple = SIMPLE.exec(text);
  if (!simple) return problem(commaProblem(text) ?? `"${shorten(text)}" is not a length. ${ACCEPTED}`);
  const unit = simple[2]! === '' ? bareUnit : simple[2]!;
  const factor = UNITS.get(unit);
  if (factor === undefined) return problem(`"${shorten(unit)}" is not a unit Emery knows. ${ACCEPTED}`);
  // 1.690 mm may be 1690 or 1.69; in inches and metres the thousands would be longer than any engine.
  const either = /^([1-9]\d{0,2})\.(\d{3})$/.exec(simple[1]!);
  if (either && factor !== MM_PER_INCH && Number(`${either[1]}${either[2]}`) * factor <= LONGEST_BELT_MM)
    return problem(twoWays(simple[1]!, `${either[1]}${either[2]}`, simple[1]!));
  return finite(Number(simple[1]) * factor);
}

function readFeet(feet: string, rest: string): LengthReading {
  if (/(mm|cm|m|ft|feet|foot|')$/.test(rest)) return problem(`Feet go with inches. ${ACCEPTED}`);
  const inches = readUnsigned(rest, 'in');
  if (inches.ok && inches.mm >= 12 * MM_PER_INCH)
    return problem(`${shorten(rest)} is a foot or more. Add it to the ${feet} feet.`);
  return inches.ok ? finite(Number(feet) * 12 * MM_PER_INCH + inches.mm) : inches;
}

function readMixed(integer: string | undefined, top: string, bottom: string, unit: string): LengthReading {
  if (unit !== '' && UNITS.get(unit) !== MM_PER_INCH)
    return problem('A fraction is read as inches. Write millimetres as a decimal, such as 169.9 mm.');
  const numerator = Number(top);
  const denominator = Number(bottom);
  if (!DIVISIONS.has(denominator))
    return problem(`${top}/${bottom} is on no tape. Use halves, quarters, eighths, 16ths, 32nds or 64ths.`);
  // 6611/16 is 66 11/16 with its space lost as likely as 413 inches.
  const split = integer === undefined && numerator >= denominator ? lostSpace(top, denominator) : null;
  if (split !== null)
    return problem(
      `${top}/${bottom} could be ${split} ${top.slice(split.length)}/${bottom}. Write a space before the fraction, or the inches as a decimal.`,
    );
  if (integer !== undefined && numerator >= denominator)
    return problem(`${top}/${bottom} is a whole inch or more. Add it to the ${integer}.`);
  return finite((Number(integer ?? 0) + numerator / denominator) * MM_PER_INCH);
}

/**
 * The whole inches that a fraction's top begins with, where its space was lost; null where nothing is left of it then.
 * The fraction keeps as many digits as it can have: 6611/16 is 66 11/16, and not 661 1/16.
 */
function lostSpace(top: string, denominator: number): string | null {
  const digits = Math.min(top.length - 1, String(denominator).length);
  for (let length = digits; length >= 1; length -= 1) {
    const rest = top.slice(-length);
    if (!rest.startsWith('0') && Number(rest) < denominator) return top.slice(0, -length);
  }
  return null;
}

/**
 * Of two lengths written in one field, where one is plainly inches and the other has no unit and no fraction: which of
 * the two readings is meant is asked about. Null where nothing is.
 */
export function mixedUnits(first: string, other: string): string | null {
  const inches = (text: string) => /\d\/\d|["']|in|ft|feet|foot/.test(normalise(text));
  const bare = (text: string) => /^[-+]?[\d.,]+$/.test(normalise(text));
  const [plain, beside] = bare(first) && inches(other) ? [first, other] : [other, first];
  if (!bare(plain) || !inches(beside)) return null;
  return `${plain.trim()} has no unit beside ${beside.trim()} in inches. Write ${plain.trim()}" or ${plain.trim()} mm.`;
}

/** Brings typographic signs, vulgar fractions and decimal commas to the few characters the grammar knows. */
function normalise(text: string): string {
  const plain = text
    .normalize('NFC')
    .replace(/[¼½¾⅛⅜⅝⅞]/g, (sign) => ` ${VULGAR[sign]!}`)
    .replace(/\u2044/g, '/')
    .replace(/[\u2212\u2010-\u2014]/g, '-')
    .replace(/[\u2032\u2018\u2019]/g, "'")
    .replace(/[\u2033\u201c\u201d]|''/g, '"')
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase()
    // A space may part the thousands; before a fraction it parts the inches.
    .replace(/^-?\d{1,3}(?: \d{3})+(?![\d/])/, (grouped) => grouped.replace(/ /g, ''));
  // A comma before one, two or four digits can only be a decimal comma. Before exactly three it may part the thousands.
  return plain.replace(/^(-?\d+),(\d{1,2}|\d{4,})(?=\D|$)/, '$1.$2').replace(/^(-?0),(\d+)/, '$1.$2');
}

function commaProblem(text: string): string | null {
  const comma = /^(\d+),(\d{3})(?!\d)/.exec(text);
  return comma && `${comma[0]} could be ${comma[1]}${comma[2]} or ${comma[1]}.${comma[2]}. Write it without the comma.`;
}

function finite(mm: number): LengthReading {
  return Number.isFinite(mm) ? { ok: true, mm } : problem(`That is too large to be a length. ${ACCEPTED}`);
}

function problem(text: string): LengthReading {
  return { ok: false, problem: text };
}

function shorten(text: string): string {
  return text.length > 24 ? `${text.slice(0, 24)}…` : text;
}
