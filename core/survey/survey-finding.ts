import type { AtPulley, Figures, FindingOf } from '../finding';
import type { ReadingSlip } from './mistakes';

/** What the tape network has to tell, by code. Figures: mm, degrees, times; or words. */
interface SurveyCodes {
  'no-readings': object;
  undetermined: AtPulley;
  suspect: { reading: string } & Figures<{ value: number; shouldBe: number; slip?: ReadingSlip }>;
  contradictory: object;
  disagree: Figures<{ factor: number }>;
  unchecked: object;
  mirrored: AtPulley<{ x: number; y: number }>;
  'two-ways': AtPulley<{ deg: number; x: number; y: number }>;
  'circle-suspect': AtPulley<{ off: number }>;
  'diameter-suspect': AtPulley<{ off: number }>;
}

/** What the tape network has to tell. */
export type SurveyFinding = FindingOf<SurveyCodes>;
export type SurveyFindingCode = SurveyFinding['code'];
