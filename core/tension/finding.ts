import type { Finding } from '../finding';

/** What a belt's tension does that it should not. */
export const TENSION_FINDING_CODES = [
  'no-path',
  'not-driven',
  'no-place',
  'marked-misfit',
  'hangs-loose',
  'default-tension',
  'slips',
  'little-margin',
  'slack-side',
  'too-much-load',
  'few-teeth',
  'jumps',
  'window-empty',
  'no-tension-holds',
  'below-window',
  'above-window',
] as const;
export type TensionFindingCode = (typeof TENSION_FINDING_CODES)[number];
export type TensionFinding = Finding<TensionFindingCode, number>;
