/** Findings that a reading put right would cure, or a reading not taken yet. */
export const SURVEY_CODES: ReadonlySet<string> = new Set([
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
