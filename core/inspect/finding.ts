import type { Finding } from '../finding';

export const INSPECT_FINDING_CODES = [
  'no-parts',
  'nothing-looked-at',
  'stop-wobble',
  'cracks-blind',
  'depth-and-profile',
  'rocks',
  'repeats',
  'one-reading',
  'no-wear',
  'odometer-doubted',
  'uneven-wear',
  'sprang-back',
  'far-end-open',
  'outlived',
  'aged',
  'wear-bends',
  'odd-figure',
  'ask-kind',
  'change-with-arm',
  'change-with-idler',
  'change-pair',
  'cure-oil',
  'cure-line',
  'cure-slip',
  'cure-chunks',
  'cure-grooves',
  'cure-arm',
  'cure-bearing',
] as const;
export type InspectFindingCode = (typeof INSPECT_FINDING_CODES)[number];

/** Something to tell of an inspection. Figures: mm, or the odometer's own unit; or words. */
export type InspectTold = Finding<InspectFindingCode>;
