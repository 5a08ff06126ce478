import type { Finding } from '../finding';

export const ALIGN_FINDING_CODES = [
  'no-path',
  'few-guides',
  'not-read',
  'run-wrong',
  'run-watch',
  'rib-off',
  'stands-a-rib-off',
  'hangs-over',
  'groove-not-there',
  'wrong-rib',
  'other-side',
  'inch-for-mm',
  'readings-disagree',
  'straightedge-short',
  'load-by-hand',
  'simulated-mixed',
  'wobbles',
  'steers',
  'track-differs',
  'moved-under-load',
  'no-cure',
  'only-watch',
  'plan-stopped',
  'stacks-apart',
  'piece-without-depth',
  'too-many-sets',
] as const;
export type AlignFindingCode = (typeof ALIGN_FINDING_CODES)[number];

/** Something to tell of how a belt lies. Figures: mm, degrees; or words. */
export type AlignFinding = Finding<AlignFindingCode>;
