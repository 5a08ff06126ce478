import { type LengthReading, type LengthUnit, MM_PER_INCH, parseLength, readNumber } from '../quantity';

/** What was understood of a reading, mm; `side` where the words said which side of the plane. */
export type OffsetReading = { ok: true; mm: number; side: 'out' | 'in' | null } | { ok: false; problem: string };

const OUT = /\s*\b(out|outward|outwards|proud|forward)$/;
const IN = /\s*\b(inward|inwards|back|behind)$/;
/** "in" is inward after a unit or ribs; after a bare number it could be inches. */
const IN_AFTER_UNIT = /(mm|cm|"|'|inch|inches|thou|ribs?|grooves?)\s+in$/;
const RIBS = /^(.*?)\s*(?:of a\s+)?(?:ribs?|grooves?)$/;
const THOU = /^(-?\d+(?:\.\d+)?)\s*(?:thou|thousandths?|mil)$/;
const WORDS: Record<string, number> = {
  '': 1,
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  half: 0.5,
  'half a': 0.5,
  'a half': 0.5,
  'a quarter': 0.25,
  quarter: 0.25,
  'a third': 1 / 3,
  third: 1 / 3,
  'two thirds': 2 / 3,
  'three quarters': 0.75,
  'one and a half': 1.5,
  'two and a half': 2.5,
};

/**
 * Reads how far a pulley stands off the way it is said at the engine: lengths as everywhere, `40 thou`, `half a rib
 * in`, `1.5 ribs out`, `2 mm in`. `pitch` is the belt's rib to rib, mm; 0 for a belt without ribs. Never throws.
 */
export function parseOffset(text: string, unit: LengthUnit, pitch: number): OffsetReading {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/[\u2212\u2010-\u2014]/g, '-')
    .replace(/½/g, '1/2')
    .replace(/¼/g, '1/4')
    .replace(/\s+/g, ' ');
  if (/^[\d\s./-]+ in$/.test(plain) && !plain.includes('/') && unit === 'mm')
    return { ok: false, problem: `"${plain}" could be inches or inward. Write such as 2 mm in, or 0.08".` };
  const inward = IN.test(plain) || IN_AFTER_UNIT.test(plain);
  const outward = OUT.test(plain);
  const bare = inward ? plain.replace(IN, '').replace(/\s+in$/, '') : plain.replace(OUT, '');
  const reading = sizeOf(bare.trim(), unit, pitch);
  if (!reading.ok) return reading;
  if (!inward && !outward) return { ...reading, side: null };
  if (reading.mm < 0) return { ok: false, problem: 'Write either a minus or the side, not both.' };
  return { ok: true, mm: inward && reading.mm > 0 ? -reading.mm : reading.mm, side: inward ? 'in' : 'out' };
}

function sizeOf(text: string, unit: LengthUnit, pitch: number): LengthReading {
  const thou = THOU.exec(text);
  if (thou) return { ok: true, mm: (Number(thou[1]) / 1000) * MM_PER_INCH };
  const ribs = RIBS.exec(text);
  if (!ribs) return parseLength(text, unit);
  if (pitch <= 0) return { ok: false, problem: 'This belt has no ribs. Write a length such as 2.5 mm.' };
  const count = countOf(ribs[1]!.trim());
  if (count === null)
    return { ok: false, problem: `"${text}" is not a number of ribs. Write such as half a rib, 1 rib or 1.5 ribs.` };
  return { ok: true, mm: count * pitch };
}

/** A number of ribs, in figures or words. */
function countOf(text: string): number | null {
  if (Object.hasOwn(WORDS, text)) return WORDS[text]!;
  const mixed = /^(-?)(?:(\d+)\s+)?(\d+)\/(\d+)(?: a)?$/.exec(text);
  if (mixed && Number(mixed[4]) > 0)
    return (mixed[1] ? -1 : 1) * (Number(mixed[2] ?? 0) + Number(mixed[3]) / Number(mixed[4]));
  const number = readNumber(text, { min: -60, max: 60 });
  return number.ok ? number.value : null;
}
