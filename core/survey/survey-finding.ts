import type { Finding } from '../finding';

export const SURVEY_FINDING_CODES = [
  'no-readings',
  'undetermined',
  'suspect',
  'contradictory',
  'disagree',
  'unchecked',
  'mirrored',
  'two-ways',
  'circle-suspect',
  'diameter-suspect',
] as const;
export type SurveyFindingCode = (typeof SURVEY_FINDING_CODES)[number];

/** What the tape network has to tell. */
export type SurveyFinding = Finding<SurveyFindingCode>;
