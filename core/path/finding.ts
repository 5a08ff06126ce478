import type { Finding } from '../finding';

export const PATH_FINDING_CODES = [
  'no-route',
  'one-pulley',
  'pulley-twice',
  'no-size',
  'absurd-size',
  'doubtful-size',
  'same-centre',
  'circles-overlap',
  'no-room',
  'not-closed',
  'crosses-itself',
  'span-through-pulley',
  'span-rubs',
  'strands-rub',
  'low-wrap',
  'wrong-surface',
  'wrong-way-round',
  'fights',
  'ratios-fight',
  'rib-count',
  'grooves-unknown',
  'planes-apart',
  'no-crank',
  'second-crank',
  'not-driven',
  'hits-obstacle',
  'near-obstacle',
] as const;
export type PathFindingCode = (typeof PATH_FINDING_CODES)[number];

/** What the path of a belt has to tell. */
export type PathFinding = Finding<PathFindingCode>;

/** Findings that a reading put right would cure, or a reading not taken yet. */
export const CURED_BY_MEASURING: ReadonlySet<PathFindingCode> = new Set([
  'no-size',
  'absurd-size',
  'doubtful-size',
  'same-centre',
  'circles-overlap',
  'grooves-unknown',
  'no-crank',
  'second-crank',
  'planes-apart',
  'rib-count',
]);
