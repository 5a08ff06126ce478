import type { Figures, FindingOf } from '../finding';

/** What the counter has to tell of what was asked, by code. Figures: mm. */
interface CounterCodes {
  'bends-doubtful': Figures<{ mm: number }>;
  /** How far apart the two lays are, and the length by each. */
  'lay-matters': Figures<{ mm: number; groove: number; rim: number }>;
  'belt-too-short': object;
  'no-belt-between': object;
}

export type CounterFinding = FindingOf<CounterCodes>;
export type CounterFindingCode = CounterFinding['code'];
