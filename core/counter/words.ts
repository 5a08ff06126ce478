import { type FindingWords, type WordsByCode, wordsOf } from '../finding';
import { formatLength, type LengthUnit } from '../quantity';
import type { CounterFinding } from './finding';
import type { Held } from './lengths';
import type { Bend } from './string';

/** How far a belt bends round a pulley. */
export const BEND_WORDS: Record<Bend, string> = {
  kisses: 'just touches',
  quarter: 'a quarter',
  half: 'half',
  more: 'more than half',
};

export const HELD_WORDS: Record<Held, string> = {
  running: 'at its running position',
  slack: 'at its slack end',
  'short-mark': 'at the short mark',
  'long-mark': 'at the long mark',
  tight: 'at its tight end',
  fixed: 'none: fixed centres',
};

type Length = (mm: number) => string;

const COUNTER_WORDS: WordsByCode<CounterFinding, Length> = {
  'bends-doubtful': ({ figures: { mm } }, length) => ({
    title: `The bend of the back alone adds ± ${length(mm)}.`,
    why: 'A quarter or half is a rough estimate.',
    todo: 'Enter the degrees instead, or save this as a drive and measure the pulleys.',
  }),
  'lay-matters': ({ figures: { mm, groove, rim } }, length) => ({
    title: `${length(groove)} if it lay down in the grooves, ${length(rim)} if on top of them.`,
    why: `The difference is ${length(mm)}, so the ± covers both.`,
    todo: 'Look, and choose which.',
  }),
  'belt-too-short': () => ({
    title: 'That belt is too short for these pulleys.',
    why: 'It would not go round the larger one with the other beside it.',
    todo: 'Check the marking and the diameters again.',
  }),
  'no-belt-between': () => ({
    title: 'No belt goes round these.',
    why: 'At that distance the two pulleys overlap.',
    todo: 'Measure from shaft to shaft.',
  }),
};

/** Tells what the counter found, in the shop's unit. */
export function counterWords(finding: CounterFinding, unit: LengthUnit = 'mm'): FindingWords {
  return wordsOf(COUNTER_WORDS, finding, (mm: number) => formatLength(mm, unit));
}
