import type { Severity } from '../path/finding';

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

/** Something the tape network says, as data; the words are made in `core/words`. */
export interface SurveyFinding {
  code: SurveyFindingCode;
  severity: Severity;
  pulley?: string;
  /** The reading meant, by id; of several that cannot be told apart, the first. */
  reading?: string;
  readings?: readonly string[];
  /** Of contradictory ones: pulleys whose diameter, or whose circle in a picture, may be the wrong one as well. */
  diameters?: readonly string[];
  circles?: readonly string[];
  /** The picture meant, by id. */
  photo?: string;
  figures?: Readonly<Record<string, number | string>>;
}
