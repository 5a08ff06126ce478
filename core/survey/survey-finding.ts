import type { Finding } from '../finding';

export type SurveyFindingCode =
  | 'no-readings'
  | 'undetermined'
  | 'suspect'
  | 'contradictory'
  | 'disagree'
  | 'unchecked'
  | 'mirrored'
  | 'two-ways'
  | 'circle-suspect'
  | 'diameter-suspect';

/** What the tape network has to tell. */
export type SurveyFinding = Finding<SurveyFindingCode>;
