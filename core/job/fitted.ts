import type { Belt } from '../drive';
import { type MarkingReading, readMarking } from '../section';
import type { BringBelt } from './bring';

/** How a marking that was read off a belt compares with what the card asked for. */
export type FittedVerdict = 'as-asked' | 'second' | 'other' | 'unread';

export interface FittedMarking {
  verdict: FittedVerdict;
  /** What the marking says; the reading nearest to what was asked for where it can be read in several ways. */
  reading: MarkingReading | null;
}

/** Schemes in tenths of an inch round a length by no more than half of one, mm. */
const ROUNDED_MM = 1.5;
/** A reading that is less likely than this beside another is not taken for what went on. */
const LEAST_LIKELIHOOD = 0.1;

type Asked = Pick<BringBelt, 'section' | 'ribs' | 'lengthMm'> & { second: { lengthMm: number } | null };

/** Reads a marking as it was read off a belt, against the belt that was to be brought; null without a marking. */
export function fittedMarking(marking: string | undefined, asked: Asked | undefined): FittedMarking | null {
  if (marking === undefined || marking.trim() === '') return null;
  const readings = readMarking(marking).filter(({ likelihood }) => likelihood >= LEAST_LIKELIHOOD);
  const best = readings[0] ?? null;
  if (!best) return { verdict: 'unread', reading: null };
  const alike = (lengthMm: number) =>
    readings.find(
      (reading) =>
        reading.section === asked!.section &&
        (asked!.ribs === null || reading.ribs === null || reading.ribs === asked!.ribs) &&
        Math.abs(reading.lengthMm - lengthMm) <= ROUNDED_MM,
    );
  if (!asked) return { verdict: 'other', reading: best };
  const first = alike(asked.lengthMm);
  if (first) return { verdict: 'as-asked', reading: first };
  const second = asked.second && alike(asked.second.lengthMm);
  return second ? { verdict: 'second', reading: second } : { verdict: 'other', reading: best };
}

/** What a belt is after a new one went on, by its marking: section, ribs, build and length as read. */
export function beltAsRead(belt: Belt, { section, ribs, lengthMm, build }: MarkingReading): Partial<Belt> {
  const other = section !== belt.section;
  return {
    length: lengthMm,
    section,
    ...(ribs !== null && { ribs }),
    build,
    // What was measured of another section's profile is not this one's.
    ...(other && { sectionOverrides: undefined }),
  };
}

const VERDICT_WORDS: Record<FittedVerdict, ((asked: string) => string) | null> = {
  'as-asked': null,
  second: (asked) => `This is the card's second choice, not ${asked}.`,
  other: (asked) => `The card asks for ${asked}, not this belt. Check it before the engine runs.`,
  unread: (asked) => `This marking cannot be read. The card asks for ${asked}.`,
};

/** What a hand is told of a belt whose marking is not the one the card asked for; null where it is. */
export function fittedWords(marking: string | undefined, asked: BringBelt | undefined): string | null {
  const read = fittedMarking(marking, asked);
  if (!read || !asked) return null;
  return VERDICT_WORDS[read.verdict]?.(asked.markings[0]?.text ?? asked.plain) ?? null;
}
