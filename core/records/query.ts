import { grouped } from '../quantity';
import { kmPer, type OdometerUnit } from '../drive';
import { type Section, sectionFor, SECTION_NAMES } from '../section';

/** What a search over all belts asks for: `every 6-rib belt over 80,000 km`. */
export interface BeltQuery {
  ribs: number | null;
  section: string | null;
  kind: Section['kind'] | null;
  /** Ran at least, and at most, km. */
  overKm: number | null;
  underKm: number | null;
  /** Fitted so many days ago or longer. */
  overDays: number | null;
  /** What else has to be found in vehicle, plate, drive or number. */
  words: string[];
}

const FILLERS = new Set(
  'a all and any are at belt belts every has have in is its of on or ran run runs that the their them what which with who'.split(
    ' ',
  ),
);
const OVER = String.raw`(?:over|above|beyond|past|more than|at least|from|>=?|≥)`;
const UNDER = String.raw`(?:under|below|less than|at most|up to|<=?|≤)`;
const NUMBER = String.raw`(\d[\d,. ]*\d|\d)\s*(k\b|thousand\b)?`;
const UNITS: Readonly<Record<string, OdometerUnit>> = {
  km: 'km',
  kilometres: 'km',
  kilometers: 'km',
  mi: 'mi',
  mile: 'mi',
  miles: 'mi',
  h: 'h',
  hours: 'h',
};
const DISTANCE = String.raw`\s*(km|kilomet(?:re|er)s|miles?|mi|hours|h)\b`;
const DAYS: Readonly<Record<string, number>> = { day: 1, week: 7, month: 30.4375, year: 365.25 };

/** Thousands may be set off by a comma, a dot or a space; one or two places after the last dot are a decimal. */
const figure = (text: string, thousand: string | undefined) => {
  const plain = /[.,]\d{1,2}$/.test(text) ? text.replace(',', '.') : text.replace(/[,. ]/g, '');
  return Number(plain) * (thousand ? 1000 : 1);
};

/** Reads what is asked of all belts, in plain words; what is none of its own words is looked for as text. */
export function readBeltQuery(text: string): BeltQuery {
  let rest = ` ${text.slice(0, 200).normalize('NFKC').toLowerCase()} `;
  /** Takes the first match out of what is left, and hands over its groups. */
  const take = (pattern: RegExp): (string | undefined)[] | null => {
    const found = pattern.exec(rest);
    if (found) rest = rest.replace(found[0], ' ');
    return found && found.slice(1);
  };
  const ribs = take(/\b(\d{1,2})[- ]?ribs?(?:bed)?\b/);
  const both = take(/\b(\d{1,2})p([jklm])\b/);
  const over = take(new RegExp(`${OVER}\\s*${NUMBER}${DISTANCE}`));
  const under = take(new RegExp(`${UNDER}\\s*${NUMBER}${DISTANCE}`));
  const older = take(
    new RegExp(String.raw`(?:older than|over|more than|>)\s*(\d+(?:\.\d+)?)\s*(day|week|month|year)s?(?: old)?\b`),
  );
  const kind = take(/\b(v|vee|ribbed|serpentine|toothed|timing)[- ]?(?:belts?)?\b(?!\d)/)?.[0];
  const named = SECTION_NAMES.find((name) =>
    // A single letter is a section only where it stands before the word.
    name.length === 1 ? rest.includes(` ${name.toLowerCase()} belt`) : rest.includes(` ${name.toLowerCase()} `),
  );
  if (named) rest = rest.replace(` ${named.toLowerCase()} `, ' ');
  const km = (parts: (string | undefined)[] | null) => parts && figure(parts[0]!, parts[1]) * kmPer(UNITS[parts[2]!]!);
  const section = both ? `P${both[1]!.toUpperCase()}` : (named ?? null);
  return {
    ribs: ribs || both ? Number((ribs ?? both)![0]) : null,
    section: section !== null && sectionFor(section) ? section : null,
    kind: kind === undefined ? null : kindCalled(kind),
    overKm: km(over),
    underKm: km(under),
    overDays: older ? Number(older[0]) * DAYS[older[1]!]! : null,
    words: rest.split(/[\s,;]+/).filter((word) => word !== '' && !FILLERS.has(word)),
  };
}

/** What was understood, so that nobody takes a list for another: `6 ribs · over 80,000 km`. */
export function queryWords({ ribs, section, kind, overKm, underKm, overDays, words }: BeltQuery): string {
  const figures = (value: number) => grouped(Math.round(value));
  return [
    ribs === null ? '' : `${ribs} ${ribs === 1 ? 'rib' : 'ribs'}`,
    section ?? '',
    kind === null ? '' : { ribbed: 'ribbed', vee: 'V-belts', toothed: 'toothed' }[kind],
    overKm === null ? '' : `over ${figures(overKm)} km`,
    underKm === null ? '' : `under ${figures(underKm)} km`,
    overDays === null ? '' : `fitted over ${figures(overDays)} days ago`,
    words.length === 0 ? '' : `with "${words.join('", "')}"`,
  ]
    .filter(Boolean)
    .join(' · ');
}

/** The kind of belt that somebody means. */
function kindCalled(kind: string): NonNullable<BeltQuery['kind']> {
  if (/^v/.test(kind)) return 'vee';
  return /^(ribbed|serpentine)$/.test(kind) ? 'ribbed' : 'toothed';
}
