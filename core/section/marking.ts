import { type Section, sectionFor, SECTIONS } from './sections';

/** Ribs on both sides, made to stretch on, or notched inside. */
export const BELT_BUILDS = ['double', 'stretch', 'cogged'] as const;
export type BeltBuild = (typeof BELT_BUILDS)[number];

/** What a marking on a belt may mean. Lengths in mm in the section's own basis. */
export interface MarkingReading {
  section: string;
  ribs: number | null;
  widthMm: number | null;
  lengthMm: number;
  basis: Section['basis'];
  /** Ribs on both sides, made to stretch on, or notched inside; not said for a plain belt. */
  build?: BeltBuild;
  /** The name of the pattern that reads it so. */
  scheme: string;
  /**
   * How sure this reading is, 0 to 1: its share among all readings of the marking, times how usual such a length is at
   * all. Where none is usual even the only reading is a doubt.
   */
  likelihood: number;
}

type Reading = Omit<MarkingReading, 'scheme' | 'likelihood'>;

interface Pattern {
  scheme: string;
  /** Named groups: ribs, mm, tenths, width, teeth and so on, as `read` wants them. */
  pattern: RegExp;
  /** `line` is which line of the belt a V's length was said to be taken on. */
  read: (groups: Record<string, string>, line: Line) => Reading | null;
  /** How usual the scheme is before the figures are looked at. */
  weight: number;
  /** How usual what its letters say is, where that differs; 1 where it is left out. */
  weightOf?: (groups: Record<string, string>) => number;
}

/** Outside, inside, or on the datum (pitch) line, as a suffix says it. */
type Line = 'outside' | 'inside' | 'datum';

const INCH = 25.4;
const number = (text: string) => Number(text.replace(',', '.'));
const tenthsOfInch = (text: string) => (Number(text) / 10) * INCH;
const round = (value: number, places = 2) => Number(value.toFixed(places));

function ribbed(letter: string, ribs: string | null, lengthMm: number, build?: string): Reading {
  const section = sectionFor(`P${letter}`)!;
  const count = ribs === null ? null : Number(ribs);
  return {
    section: section.name,
    ribs: count,
    widthMm: count === null ? null : round(count * section.width),
    lengthMm: round(lengthMm),
    basis: section.basis,
    ...(build === 'D' && { build: 'double' as const }),
    ...(build === 'E' && { build: 'stretch' as const }),
  };
}

/** Widths that are printed rounded, and the section meant. */
const ROUNDED_WIDTHS: Record<number, string> = { 9.5: 'AV10', 12.5: 'AV13' };

/** Narrow V-belts are called by their letters alone, never by a width. */
const NARROW = /^SP[ZABC]$/;

/** A V-belt by its top width, mm: the section next to it, no more than `within` off. */
function vee(widthMm: number, lengthMm: number, line: Line, within = 0.8): Reading | null {
  const off = ({ width }: Section) => Math.abs(width - widthMm);
  const nearest = SECTIONS.filter(({ kind, name }) => kind === 'vee' && !NARROW.test(name)).reduce((best, next) =>
    off(next) < off(best) - 1e-9 ? next : best,
  );
  const section = sectionFor(ROUNDED_WIDTHS[widthMm] ?? '') ?? (off(nearest) <= within ? nearest : null);
  return section && veeOf(section, widthMm, lengthMm, line);
}

/**
 * A V-belt is told by its outside length; the line inside lies its whole height further in, the datum line its cord's
 * depth.
 */
function veeOf(section: Section, widthMm: number, lengthMm: number, line: Line): Reading {
  const inward = { outside: 0, inside: section.thickness, datum: section.markedOffset }[line];
  return {
    section: section.name,
    ribs: null,
    widthMm: round(widthMm, 1),
    lengthMm: round(lengthMm + 2 * Math.PI * inward),
    basis: section.basis,
  };
}

/** A classical belt is told by the inches of its inside. */
function classical(letter: string, inches: number, cogged: string): Reading {
  const section = sectionFor(letter)!;
  return {
    ...veeOf(section, section.width, inches * INCH, 'inside'),
    ...(cogged !== '' && { build: 'cogged' as const }),
  };
}

/** A toothed belt has a whole number of teeth; where a length was given it must agree with them to 2 mm. */
function toothed(section: string, teeth: number, widthMm: number | null, lengthMm?: number): Reading | null {
  const exact = teeth * sectionFor(section)!.pitch;
  if (lengthMm !== undefined && Math.abs(exact - lengthMm) > 2) return null;
  return {
    section,
    ribs: null,
    widthMm: widthMm === null ? null : round(widthMm),
    lengthMm: round(exact, 3),
    basis: 'pitch',
  };
}

const teethOf = (section: string, lengthMm: number) => Math.round(lengthMm / sectionFor(section)!.pitch);

/** Toothed sections by the pitch that is printed for them. */
const BY_PITCH: Record<string, string> = { '5.08': 'XL', '9.525': 'L', '12.7': 'H', '8': 'H8M', '14': 'H14M' };

/** Style numbers that stand for an inch V width without being it, mm. */
const STYLE_WIDTHS: Record<string, number> = { '11': 11.2, '13': 9.7, '15': 9.7, '17': 11.2, '20': 12.7, '25': 17.5 };

/** A five-figure inch V-belt by its width, and whole inches with a last figure in tenths or eighths. */
function inchVee(
  scheme: string,
  widthOf: (code: string) => number | undefined,
  inchesOf: (last: number) => number | null,
  weight: number,
): Pattern {
  return {
    scheme,
    weight,
    pattern: /^(?<width>\d{2})(?<inches>\d{2})(?<last>\d)$/,
    read: ({ width, inches, last }) => {
      const [widthMm, part] = [widthOf(width!), inchesOf(Number(last))];
      return widthMm === undefined || part === null
        ? null
        : vee(widthMm, (Number(inches) + part) * INCH, 'outside', 1.1);
    },
  };
}
const inThirtySeconds = (code: string) => (Number(code) / 32) * INCH;
const inStyles = (code: string) => STYLE_WIDTHS[code];
const asTenths = (last: number) => last / 10;
const asEighths = (last: number) => (last <= 7 ? last / 8 : null);

/** How usual each profile of ribs is on a vehicle where its letter alone is printed. */
const LETTER_WEIGHTS: Record<string, number> = { K: 1, J: 0.4, L: 0.15, M: 0.08 };
/** Millimetres stand less often in a scheme that is made for tenths of an inch, as a fraction of its weight. */
const MM_INSTEAD = 0.5;

/**
 * A scheme of ribs with a bare letter, or none, and a length in tenths of an inch; four figures that do not begin with
 * a nought may be mm as well. `length`, `ribs` and `letter` are its groups.
 */
function bareLetter(scheme: string, inMm: string, weight: number, pattern: RegExp): Pattern[] {
  return [
    {
      scheme,
      weight,
      weightOf: ({ letter = 'K' }) => LETTER_WEIGHTS[letter]!,
      pattern,
      read: ({ length, letter = 'K', ribs }) => ribbed(letter, ribs!, tenthsOfInch(length!)),
    },
    {
      scheme: inMm,
      weight: weight * MM_INSTEAD,
      weightOf: ({ letter = 'K' }) => LETTER_WEIGHTS[letter]!,
      pattern,
      read: ({ length, letter = 'K', ribs }) =>
        /^[1-9]\d{3}$/.test(length!) ? ribbed(letter, ribs!, number(length!)) : null,
    },
  ];
}

/** Light-duty belts by a figure for their width, in eighths of an inch and so on, mm. */
const LIGHT_WIDTHS: Record<string, number> = { '2': 6.35, '3': 9.5, '4': 12.7, '5': 16.7 };

/**
 * The table of patterns. Each is a general way of marking belts, not a maker's; the figures decide between those that
 * match.
 */
const PATTERNS: readonly Pattern[] = [
  {
    scheme: 'ribs-PK-mm',
    weight: 1,
    pattern: /^(?<ribs>\d{1,2})(?<build>[DE]?)P(?<letter>[JKLM])[X/-]?0?(?<mm>\d{3,4}(?:[.,]\d)?)$/,
    read: ({ ribs, build, letter, mm }) => ribbed(letter!, ribs!, number(mm!), build),
  },
  {
    scheme: 'PK-ribs-mm',
    weight: 0.8,
    pattern: /^P(?<letter>[JKLM])(?<ribs>\d{1,2})X(?<mm>\d{3,4})$/,
    read: ({ ribs, letter, mm }) => ribbed(letter!, ribs!, number(mm!)),
  },
  {
    scheme: 'PK-mm-ribs',
    weight: 0.7,
    pattern: /^P(?<letter>[JKLM])(?<mm>\d{3,4})[-/](?<ribs>\d{1,2})$/,
    read: ({ ribs, letter, mm }) => ribbed(letter!, ribs!, number(mm!)),
  },
  {
    scheme: 'mm-PK-ribs',
    weight: 0.6,
    pattern: /^(?<mm>\d{3,4})P(?<letter>[JKLM])(?<ribs>\d{1,2})$/,
    read: ({ ribs, letter, mm }) => ribbed(letter!, ribs!, number(mm!)),
  },
  {
    scheme: 'mm-ribs-PK',
    weight: 0.7,
    pattern: /^(?<mm>\d{3,4})[-/](?<ribs>\d{1,2})P(?<letter>[JKLM])$/,
    read: ({ ribs, letter, mm }) => ribbed(letter!, ribs!, number(mm!)),
  },
  {
    scheme: 'PK-mm',
    weight: 0.6,
    pattern: /^P(?<letter>[JKLM])(?<mm>\d{3,4})$/,
    read: ({ letter, mm }) => ribbed(letter!, null, number(mm!)),
  },
  ...bareLetter('tenths-K-ribs', 'mm-K-ribs', 1, /^(?<length>\d{3,4})(?<letter>[JKLM])(?<ribs>\d{1,2})$/),
  ...bareLetter('ribs-K-tenths', 'ribs-K-mm', 0.8, /^(?<ribs>\d{1,2})(?<letter>[JKM])(?<length>\d{3,4})$/),
  ...bareLetter('K-ribs-tenths', 'K-ribs-mm', 0.8, /^(?<letter>[JKLM])(?<ribs>\d{2})-?(?<length>\d{4})$/),
  ...bareLetter('style-ribs-tenths', 'style-ribs-mm', 0.8, /^[45](?<ribs>0[2-9]|1[0-2])(?<length>\d{4})$/),
  ...bareLetter('style-ribs-tenths', 'style-ribs-mm', 0.5, /^[45]0(?<ribs>[3-9])(?<length>\d{3,4})$/),
  {
    scheme: 'AV-width-mm',
    weight: 1,
    pattern: /^AV(?<cogged>X?)(?<width>10|13|15|17)[X/-]?(?<mm>\d{3,4})$/,
    read: ({ cogged, width, mm }, line) => ({
      ...veeOf(sectionFor(`AV${width}`)!, Number(width), number(mm!), line),
      ...(cogged && { build: 'cogged' as const }),
    }),
  },
  {
    scheme: 'width×mm',
    weight: 0.9,
    pattern: /^(?<width>\d{1,2}(?:[.,]\d)?)[X/](?<mm>\d{3,4})$/,
    read: ({ width, mm }, line) => vee(number(width!), number(mm!), line),
  },
  {
    scheme: 'width-A-mm',
    weight: 0.9,
    pattern: /^(?<width>\d{1,2}(?:[.,]\d)?)A0?(?<mm>\d{3,4})$/,
    read: ({ width, mm }, line) => vee(number(width!), number(mm!), line),
  },
  {
    scheme: 'letter-inches',
    weight: 0.9,
    pattern: /^(?<letter>[ABC])(?<cogged>X?)(?<inches>\d{2,3}(?:[.,]\d)?)$/,
    read: ({ letter, cogged, inches }) => classical(letter!, number(inches!), cogged!),
  },
  {
    // The same belt told twice: its width and the inside in mm, and its letter and the inside in inches.
    scheme: 'width×mm-letter-inches',
    weight: 1,
    pattern: /^(?<width>\d{2}(?:[.,]\d)?)[X/](?<mm>\d{3,4})(?<letter>[ABC])(?<cogged>X?)(?<inches>\d{2,3}(?:[.,]\d)?)$/,
    read: ({ width, mm, letter, cogged, inches }) =>
      Math.abs(number(mm!) - number(inches!) * INCH) <= 6 && Math.abs(number(width!) - sectionFor(letter!)!.width) < 1
        ? classical(letter!, number(inches!), cogged!)
        : null,
  },
  {
    scheme: 'narrow-mm',
    weight: 1,
    pattern: /^(?<cogged>[SX])P(?<letter>[ZABC])(?<mm>\d{3,4})$/,
    read: ({ cogged, letter, mm }) => {
      const section = sectionFor(`SP${letter!}`)!;
      return {
        ...veeOf(section, section.width, number(mm!), 'datum'),
        ...(cogged === 'X' && { build: 'cogged' as const }),
      };
    },
  },
  {
    scheme: 'light-tenths',
    weight: 0.8,
    pattern: /^(?<width>[2-5])L(?<tenths>\d{3,4})$/,
    read: ({ width, tenths }) => vee(LIGHT_WIDTHS[width!]!, tenthsOfInch(tenths!), 'outside', 1.1),
  },
  {
    scheme: 'fraction×inches',
    weight: 0.8,
    pattern: /^(?<top>\d{1,2})\/(?<bottom>8|16|32)X(?<inches>\d{2,3}(?:[.,]\d{1,3})?)$/,
    read: ({ top, bottom, inches }) =>
      vee((Number(top) / Number(bottom)) * INCH, number(inches!) * INCH, 'outside', 1.1),
  },
  {
    scheme: 'letter-mm',
    weight: 0.7,
    pattern: /^(?<letter>[ABC])(?<mm>\d{4})$/,
    read: ({ letter, mm }, line) => veeOf(sectionFor(letter!)!, sectionFor(letter!)!.width, number(mm!), line),
  },
  inchVee('width-inches-tenths', inThirtySeconds, asTenths, 0.8),
  inchVee('width-inches-eighths', inThirtySeconds, asEighths, 0.5),
  inchVee('style-inches-tenths', inStyles, asTenths, 0.25),
  inchVee('style-inches-eighths', inStyles, asEighths, 0.15),
  {
    // Pitch length in tenths of an inch, pitch code, width in hundredths of an inch (ISO 5296).
    scheme: 'tenths-pitch-hundredths',
    weight: 1,
    pattern: /^(?<tenths>\d{2,4})(?<pitch>XL|L|H)(?<width>\d{3})$/,
    read: ({ tenths, pitch, width }) =>
      toothed(pitch!, teethOf(pitch!, tenthsOfInch(tenths!)), (Number(width) / 100) * INCH, tenthsOfInch(tenths!)),
  },
  {
    scheme: 'teeth-pitch-mm',
    weight: 0.7,
    pattern: /^(?<teeth>\d{2,3})(?<pitch>XL|L|H)(?<width>\d{2}(?:[.,]\d)?)$/,
    read: ({ teeth, pitch, width }) => toothed(pitch!, Number(teeth), number(width!)),
  },
  {
    scheme: 'mm-pitch-mm',
    weight: 1,
    pattern: /^(?<mm>\d{3,4})[X/-]?H?(?<pitch>8|14)M[X/-]?(?<width>\d{2,3})$/,
    read: ({ mm, pitch, width }) => toothed(`H${pitch}M`, teethOf(`H${pitch}M`, Number(mm)), Number(width), Number(mm)),
  },
  {
    scheme: 'pitch-mm',
    weight: 0.5,
    pattern: /^H?(?<pitch>8|14)M[X/-]?(?<mm>\d{3,4})$/,
    read: ({ mm, pitch }) => toothed(`H${pitch}M`, teethOf(`H${pitch}M`, Number(mm)), null, Number(mm)),
  },
  {
    scheme: 'pitch-mm-mm',
    weight: 0.9,
    pattern: /^H?(?<pitch>8|14)M[X/-]?(?<mm>\d{3,4})[X/-](?<width>\d{2,3})$/,
    read: ({ mm, pitch, width }) => toothed(`H${pitch}M`, teethOf(`H${pitch}M`, Number(mm)), Number(width), Number(mm)),
  },
  {
    scheme: 'teeth×pitch×width',
    weight: 0.9,
    pattern: /^(?<teeth>\d{2,3})[X/-](?<pitch>5[.,]08|9[.,]525|12[.,]7|8|14)[X/-](?<width>\d{1,3}(?:[.,]\d)?)$/,
    read: ({ teeth, pitch, width }) => toothed(BY_PITCH[pitch!.replace(',', '.')]!, Number(teeth), number(width!)),
  },
];

/**
 * How usual a length is for a vehicle's accessory belt: 1 within the usual, less outside, 0 where no such belt is made.
 */
function usualLength(lengthMm: number): number {
  if (lengthMm < 250 || lengthMm > 5000) return 0;
  return lengthMm >= 500 && lengthMm <= 3200 ? 1 : 0.2;
}

/** The same of its figures beside the length. */
function usualSize({ section, ribs, widthMm }: Reading): number {
  if (ribs !== null && (ribs < 2 || ribs > 14)) return 0;
  if (ribs !== null) return ribs >= 3 && ribs <= 8 ? 1 : 0.4;
  // Ribs nobody counted, and teeth whose width is not printed, are doubted for nothing.
  if (widthMm === null) return sectionFor(section)!.kind === 'vee' ? 0 : 1;
  return widthMm > 0 && widthMm < 80 ? 1 : 0;
}

/** What a belt is made of, or how, printed behind its size. */
const MATERIAL = /[-/(]?(EPDM|HNBR|NBR|CR|NEOPRENE|POLYCHLOROPRENE|ARAMID|ELASTIC|ELAST|STRETCH)\)?$/;
const LINES: Record<string, Line> = { LA: 'outside', LI: 'inside', LD: 'datum', LP: 'datum', LW: 'datum' };

/**
 * What is printed on a belt, read in the general schemes; best first, empty for nonsense. Spaces, dots between parts,
 * case, the width of the letters and what the belt is made of do not matter; behind a V-belt's length La, Li or Ld says
 * on which line it was taken, outside where nothing does.
 */
export function readMarking(text: string): MarkingReading[] {
  if (text.length > 60) return [];
  const plain = text
    .normalize('NFKC')
    .toUpperCase()
    .replace(/[\s_·]+/g, '')
    .replace(/[*×]/g, 'X')
    .replace(MATERIAL, '')
    .replace(/(?<=\d)(HD|DR|K)$/, '');
  const [, size = plain, suffix = ''] = /^(.*\d)(MM|LE|LA|LI|LD|LP|LW)$/.exec(plain.replace(/MM(?=L[A-Z]$)/, '')) ?? [];
  const tidy = size.replace(/(?<=[A-Z])[-.](?=\d)|(?<=\d)[-.](?=[A-Z])/g, '');
  const found = PATTERNS.flatMap(({ scheme, pattern, read, weight, weightOf }) => {
    const groups = pattern.exec(tidy)?.groups;
    const reading = groups && read(groups, LINES[suffix] ?? 'outside');
    const share = reading ? weight * (weightOf?.(groups) ?? 1) * usualLength(reading.lengthMm) * usualSize(reading) : 0;
    return reading && share > 0 ? [{ ...reading, scheme, likelihood: share }] : [];
  });
  // Two patterns may read the same; the likelier name is kept.
  const same = (first: Reading, other: Reading) =>
    first.section === other.section &&
    first.ribs === other.ribs &&
    first.lengthMm === other.lengthMm &&
    first.widthMm === other.widthMm;
  const distinct = found.filter(
    (reading, k) =>
      !found.some(
        (other, j) =>
          j !== k &&
          same(reading, other) &&
          (other.likelihood > reading.likelihood || (other.likelihood === reading.likelihood && j < k)),
      ),
  );
  const total = distinct.reduce((sum, { likelihood }) => sum + likelihood, 0);
  const usual = Math.max(0, ...distinct.map(({ lengthMm }) => usualLength(lengthMm)));
  return distinct
    .map((reading) => ({ ...reading, likelihood: (usual * reading.likelihood) / total }))
    .sort((a, b) => b.likelihood - a.likelihood);
}

/** What each scheme writes, in its order. */
export const SCHEME_WORDS: Record<string, string> = {
  'ribs-PK-mm': 'ribs, profile, mm',
  'PK-ribs-mm': 'profile, ribs, mm',
  'PK-mm-ribs': 'profile, mm, ribs',
  'mm-PK-ribs': 'mm, profile, ribs',
  'mm-ribs-PK': 'mm, ribs, profile',
  'PK-mm': 'profile, mm; ribs not printed',
  'mm-K-ribs': 'mm, letter, ribs',
  'ribs-K-mm': 'ribs, letter, mm',
  'K-ribs-mm': 'letter, ribs, mm',
  'style-ribs-mm': 'style figure, ribs, mm',
  'width×mm-letter-inches': 'top width, mm inside, and profile, inches inside',
  'narrow-mm': 'narrow profile, mm on the datum line',
  'light-tenths': 'light-duty width, tenths of an inch outside',
  'fraction×inches': 'top width as a fraction of an inch, inches outside',
  'pitch-mm': 'pitch, mm; width not printed',
  'pitch-mm-mm': 'pitch, mm, width in mm',
  'tenths-K-ribs': 'tenths of an inch, letter, ribs',
  'ribs-K-tenths': 'ribs, letter, tenths of an inch',
  'K-ribs-tenths': 'letter, ribs, tenths of an inch',
  'style-ribs-tenths': 'style figure, ribs, tenths of an inch',
  'AV-width-mm': 'AV, top width, mm outside',
  'width×mm': 'top width, mm outside',
  'width-A-mm': 'top width, A, mm outside',
  'letter-inches': 'profile, inches inside',
  'letter-mm': 'profile, mm outside',
  'width-inches-tenths': 'top width in 32nds, inches and tenths outside',
  'width-inches-eighths': 'top width in 32nds, inches and eighths outside',
  'style-inches-tenths': 'style for the width, inches and tenths outside',
  'style-inches-eighths': 'style for the width, inches and eighths outside',
  'tenths-pitch-hundredths': 'tenths of an inch, pitch, width in hundredths of an inch',
  'teeth-pitch-mm': 'teeth, pitch, width in mm',
  'mm-pitch-mm': 'mm, pitch, width in mm',
  'teeth×pitch×width': 'teeth, pitch in mm, width in mm',
};

/** A belt as it is asked for at a counter, and the scheme that writes it so. */
export interface MarkingText {
  text: string;
  scheme: string;
}

/** As much of a belt as its marking tells. */
export interface MarkedBelt {
  section: string;
  ribs?: number | null;
  lengthMm: number;
  /** Of a toothed belt, which no scheme writes without it, mm. */
  widthMm?: number | null;
  build?: MarkingReading['build'];
}

/** A marking reads back to within this of the length it was made from, mm: inch schemes step by a tenth. */
const READS_BACK_MM = 1.3;
/** The same for a width, mm: of a toothed belt in hundredths of an inch, or whole mm. */
const WIDTH_BACK_MM = 0.3;

/**
 * What to ask for at a counter: a belt's marking in the usual schemes, the likeliest to be understood first. Each reads
 * back as this belt; those of a scheme that has no way to write it, or in which it would be taken for another, are left
 * out.
 */
export function markingsOf(belt: MarkedBelt): MarkingText[] {
  const section = sectionFor(belt.section);
  if (!section || !(belt.lengthMm > 0)) return [];
  const { ribs = null, widthMm, build, lengthMm } = belt;
  return [...new Set(written(section, belt))].flatMap((text): MarkingText[] => {
    const [best] = readMarking(text);
    const same =
      best?.section === section.name &&
      best.ribs === ribs &&
      best.build === build &&
      Math.abs(best.lengthMm - lengthMm) <= READS_BACK_MM &&
      (section.kind !== 'toothed' || Math.abs(best.widthMm! - widthMm!) <= WIDTH_BACK_MM);
    return same ? [{ text, scheme: best.scheme }] : [];
  });
}

function written(section: Section, { ribs = null, lengthMm, widthMm = null, build }: MarkedBelt): string[] {
  const mm = Math.round(lengthMm);
  const tenths = String(Math.round((lengthMm / INCH) * 10)).padStart(4, '0');
  switch (section.kind) {
    case 'ribbed': {
      if (ribs === null) return [];
      const two = String(ribs).padStart(2, '0');
      const letter = section.name.charAt(1);
      const builds = { double: 'D', stretch: 'E' } as Partial<Record<string, string>>;
      if (build) return [`${ribs}${builds[build] ?? ''}${section.name}${mm}`];
      const style = section.name === 'PK' ? [`5${two}${tenths}`] : [];
      return [`${ribs}${section.name}${mm}`, `${letter}${two}${tenths}`, `${Number(tenths)}${letter}${ribs}`, ...style];
    }
    case 'vee': {
      const inside = (lengthMm - 2 * Math.PI * section.thickness) / INCH;
      const datum = Math.round(lengthMm - 2 * Math.PI * section.markedOffset);
      if (build === 'cogged') {
        if (NARROW.test(section.name)) return [`X${section.name.slice(1)}${datum}`];
        return /^[ABC]$/.test(section.name)
          ? [`${section.name}X${Math.round(inside)}`, `${section.name}X${inside.toFixed(1)}`]
          : [`AVX${section.width}x${mm}`];
      }
      if (NARROW.test(section.name)) return [`${section.name}${datum}`];
      if (/^[ABC]$/.test(section.name))
        return [`${section.name}${Math.round(inside)}`, `${section.name}${inside.toFixed(1)}`];
      const width = String(Math.round((section.width / INCH) * 32)).padStart(2, '0');
      return [`${section.name}x${mm}`, `${section.width}x${mm}`, `${width}${tenths.replace(/^0/, '')}`];
    }
    case 'toothed': {
      if (widthMm === null) return [];
      const teeth = Math.round(lengthMm / section.pitch);
      const wide = String(Math.round(widthMm * 10) / 10);
      const metric = /^H(\d+)M$/.exec(section.name)?.[1];
      return metric
        ? [`${mm}-${metric}M-${wide}`, `${teeth}x${section.pitch}x${wide}`]
        : [
            `${Number(tenths)}${section.name}${String(Math.round((widthMm / INCH) * 100)).padStart(3, '0')}`,
            `${teeth}${section.name}${wide}`,
            `${teeth}x${section.pitch}x${wide}`,
          ];
    }
  }
}
