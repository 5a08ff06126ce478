import type { Finding } from '../finding';

/** What the counter has to tell of what was asked. */
export const COUNTER_FINDING_CODES = ['bends-doubtful', 'lay-matters', 'belt-too-short', 'no-belt-between'] as const;
export type CounterFindingCode = (typeof COUNTER_FINDING_CODES)[number];
export type CounterFinding = Finding<CounterFindingCode, number>;
