import { SECTIONS, sectionFor } from './sections';

/** What a marking on a belt may mean. Lengths in mm in the section's own basis. */
export interface MarkingReading {
  section: string;
  ribs: number | null;
  widthMm: number | null;
  lengthMm: number;
  basis: 'effective' | 'outside' | 'pitch';
  /** The name of the pattern that reads it so. */
  scheme: string;
  /** Share of the likelihood among all readings of this marking, 0 to 1. */
  likelihood: number;
}

interface Pattern {
  scheme: string;
  /** Named groups: ribs, mm, tenths, width, teeth and so on, as `read` wants them. */
  pattern: RegExp;
  read: (groups: Record<string, string>) => Omit<MarkingReading, 'scheme' | 'likelihood'> | null;
  /** How usual the scheme is before the figures are looked at. */
  weight: number;
}

const INCH = 25.4;

/** V widths in mm and the section each stands for. */
function veeByWidth(widthMm: number): string | null {
  const fitting = SECTIONS.filter(({ kind }) => kind === 'vee').map(({ name, width }) => ({ name, off: Math.abs(width - widthMm) })).sort((a, b) => a.off - b.off)[0]!;
  return fitting.off <= 0.8 ? fitting.name : null;
}

const number = (text: string) => Number(text.replace(',', '.'));
const ribbed = (ribs: number, lengthMm: number) => ({ section: 'PK', ribs, widthMm: Math.round(ribs * 3.56 * 100) / 100, lengthMm: Math.round(lengthMm * 100) / 100, basis: 'effective' as const });
const vee = (widthMm: number, lengthMm: number) => {
  const section = veeByWidth(widthMm);
  return section === null ? null : { section, ribs: null, widthMm: Math.round(widthMm * 10) / 10, lengthMm: Math.round(lengthMm * 100) / 100, basis: 'outside' as const };
};

/** Inch V widths by the two digits that stand for them: tenths of a sixteenth and nominal sixteenths of the top width. */
const INCH_WIDTHS: Record<string, number> = { '10': 9.7, '11': 11.2, '13': 9.7, '15': 9.7, '17': 11.2, '20': 12.7, '22': 17.5, '24': 19, '25': 17.5 };

/** Eighths of an inch by the last digit of a style number: 0 to 7 eighths. */
const eighths = (digit: string) => Number(digit) / 8;

/**
 * The table of patterns. Each is a general way of marking belts, not a maker's; the figures decide between those that match.
 */
const PATTERNS: readonly Pattern[] = [
  { scheme: 'ribs-PK-mm', pattern: /^(?<ribs>\d{1,2})PK(?<mm>\d{3,4}(?:[.,]\d)?)$/, weight: 1, read: ({ ribs, mm }) => ribbed(Number(ribs), number(mm!)) },
  { scheme: 'PK-mm-ribs', pattern: /^PK(?<mm>\d{3,4})[-/](?<ribs>\d{1,2})$/, weight: 0.7, read: ({ ribs, mm }) => ribbed(Number(ribs), number(mm!)) },
  { scheme: 'mm-PK-ribs', pattern: /^(?<mm>\d{3,4})PK(?<ribs>\d{1,2})$/, weight: 0.6, read: ({ ribs, mm }) => ribbed(Number(ribs), number(mm!)) },
  { scheme: 'tenths-K-ribs', pattern: /^(?<tenths>\d{3,4})K(?<ribs>\d{1,2})$/, weight: 1, read: ({ tenths, ribs }) => ribbed(Number(ribs), (Number(tenths) / 10) * INCH) },
  { scheme: 'K-ribs-tenths', pattern: /^K(?<ribs>\d{2})(?<tenths>\d{4})$/, weight: 0.8, read: ({ tenths, ribs }) => ribbed(Number(ribs), (Number(tenths) / 10) * INCH) },
  { scheme: 'style-ribs-tenths', pattern: /^(?<style>[45])(?<ribs>0[2-9]|1[0-2])(?<tenths>\d{4})$/, weight: 0.8, read: ({ tenths, ribs }) => ribbed(Number(ribs), (Number(tenths) / 10) * INCH) },
  { scheme: 'style-ribs-tenths', pattern: /^(?<style>[45]0)(?<ribs>[3-9])(?<tenths>\d{3,4})$/, weight: 0.5, read: ({ tenths, ribs }) => ribbed(Number(ribs), (Number(tenths) / 10) * INCH) },
  { scheme: 'AV-width-mm', pattern: /^AV(?<width>10|13)[X×-]?(?<mm>\d{3,4})(?:LA)?$/, weight: 1, read: ({ width, mm }) => ({ section: `AV${width}`, ribs: null, widthMm: Number(width), lengthMm: number(mm!), basis: 'outside' }) },
  { scheme: 'width×mm', pattern: /^(?<width>\d{1,2}(?:[.,]\d)?)[X×](?<mm>\d{3,4})(?:LA)?$/, weight: 0.9, read: ({ width, mm }) => vee(number(width!), number(mm!)) },
  {
    scheme: 'width-inches-eighths', pattern: /^(?<width>\d{2})(?<inches>\d{2})(?<eighth>[0-7])$/, weight: 0.8,
    read: ({ width, inches, eighth }) => (INCH_WIDTHS[width!] === undefined ? null : vee(INCH_WIDTHS[width!]!, (Number(inches) + eighths(eighth!)) * INCH)),
  },
  {
    scheme: 'width-inches-tenths', pattern: /^(?<width>\d{2})(?<inches>\d{2})(?<tenth>\d)$/, weight: 0.4,
    read: ({ width, inches, tenth }) => (INCH_WIDTHS[width!] === undefined ? null : vee(INCH_WIDTHS[width!]!, (Number(inches) + Number(tenth) / 10) * INCH)),
  },
  {
    // Pitch length in tenths of an inch, pitch code, width in hundredths of an inch (ISO 5296).
    scheme: 'tenths-pitch-hundredths', pattern: /^(?<tenths>\d{2,4})(?<pitch>L|H)(?<width>\d{3})$/, weight: 1,
    read: ({ tenths, pitch, width }) => toothed(pitch!, Math.round(((Number(tenths) / 10) * INCH) / sectionFor(pitch!)!.pitch), (Number(width) / 100) * INCH, (Number(tenths) / 10) * INCH),
  },
  { scheme: 'teeth-pitch-mm', pattern: /^(?<teeth>\d{2,3})(?<pitch>L|H)(?<width>\d{2}(?:[.,]\d)?)(?:MM)?$/, weight: 0.7, read: ({ teeth, pitch, width }) => toothed(pitch!, Number(teeth), number(width!)) },
  { scheme: 'teeth×pitch×width', pattern: /^(?<teeth>\d{2,3})[X×](?<mm>9[.,]525|12[.,]7)[X×](?<width>\d{1,2}(?:[.,]\d)?)$/, weight: 0.9, read: ({ teeth, mm, width }) => toothed(number(mm!) > 10 ? 'H' : 'L', Number(teeth), number(width!)) },
];

/** A toothed belt has a whole number of teeth; where a length was given it must agree with them to half a pitch. */
function toothed(section: string, teeth: number, widthMm: number, lengthMm?: number): Omit<MarkingReading, 'scheme' | 'likelihood'> | null {
  const exact = teeth * sectionFor(section)!.pitch;
  if (lengthMm !== undefined && Math.abs(exact - lengthMm) > 2) return null;
  return { section, ribs: null, widthMm: Math.round(widthMm * 100) / 100, lengthMm: Math.round(exact * 1000) / 1000, basis: 'pitch' };
}

/** How plausible figures are for a road vehicle's accessory belt: 1 within the usual, less outside, 0 where no such belt is made. */
function plausibility({ section, ribs, lengthMm, widthMm }: Omit<MarkingReading, 'scheme' | 'likelihood'>): number {
  if (lengthMm < 250 || lengthMm > 5000) return 0;
  if (section === 'PK' && (ribs === null || ribs < 2 || ribs > 14)) return 0;
  const usual = lengthMm >= 500 && lengthMm <= 3200 ? 1 : 0.3;
  if (section === 'PK') return usual * (ribs! >= 3 && ribs! <= 8 ? 1 : 0.4);
  return usual * (widthMm !== null && widthMm > 0 && widthMm < 80 ? 1 : 0);
}

/**
 * What is printed on a belt, read in the general schemes; best first, empty for nonsense. Spaces, dots between parts and case do not matter.
 */
export function readMarking(text: string): MarkingReading[] {
  const plain = text.toUpperCase().replace(/[\s_·]+/g, '').replace(/[*]/g, 'X').replace(/(?<=[A-Z])[-.](?=\d)|(?<=\d)[-.](?=[A-Z])/g, '');
  if (plain.length > 40) return [];
  const found = PATTERNS.flatMap(({ scheme, pattern, read, weight }) => {
    const groups = pattern.exec(plain)?.groups;
    const reading = groups && read(groups);
    const share = reading ? weight * plausibility(reading) : 0;
    return reading && share > 0 ? [{ ...reading, scheme, likelihood: share }] : [];
  });
  // Two patterns may read the same; the likelier name is kept.
  const distinct = found.filter((one, k) => !found.some((other, j) => j !== k && other.section === one.section && other.ribs === one.ribs && other.lengthMm === one.lengthMm && (other.likelihood > one.likelihood || (other.likelihood === one.likelihood && j < k))));
  const total = distinct.reduce((sum, { likelihood }) => sum + likelihood, 0);
  return distinct.map((one) => ({ ...one, likelihood: one.likelihood / total })).sort((a, b) => b.likelihood - a.likelihood);
}
