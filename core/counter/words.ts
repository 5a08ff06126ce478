import type { FindingWords } from '../finding';
import { formatLength, type LengthUnit } from '../quantity';
import type { CounterFinding } from './finding';
import type { Held } from './lengths';
import type { Bend } from './string';

/** How far a belt bends round a pulley. */
export const BEND_WORDS: Record<Bend, string> = {
  kisses: 'kisses',
  quarter: 'a quarter',
  half: 'half way',
  more: 'more than half',
};

export const HELD_WORDS: Record<Held, string> = {
  running: 'where it is to run',
  slack: 'at its slack end',
  'short-mark': 'at the short mark',
  'long-mark': 'at the long mark',
  tight: 'at its tight end',
  fixed: 'there is none: fixed centres',
};

/** Tells what the counter found, in the shop's unit. */
export function counterWords({ code, figures }: CounterFinding, unit: LengthUnit = 'mm'): FindingWords {
  const length = formatLength(figures?.['mm'] ?? 0, unit);
  switch (code) {
    case 'bends-doubtful':
      return {
        title: `How far the back bends is good to ${length} alone.`,
        why: 'A quarter or half is a wide guess.',
        todo: 'Write the degrees in place of it, or keep this as a drive and measure the pulleys.',
      };
    case 'lay-matters':
      return {
        title: `${formatLength(figures?.['groove'] ?? 0, unit)} if it lay down in the grooves, ${formatLength(figures?.['rim'] ?? 0, unit)} if on top of them.`,
        why: `How it lay makes ${length}, so the ± covers both.`,
        todo: 'Look, and say which.',
      };
    case 'belt-too-short':
      return {
        title: 'That belt is too short for these pulleys.',
        why: 'It would not go round the larger one with the other beside it.',
        todo: 'Read marking and diameters again.',
      };
    case 'no-belt-between':
      return {
        title: 'No belt goes round these.',
        why: 'At that distance the pulleys stand in one another.',
        todo: 'Measure from shaft to shaft.',
      };
  }
}
