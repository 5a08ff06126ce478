import type { AtPulley, Figures, FindingOf } from '../finding';

/** What a belt's tension does that it should not, by code. Figures: N, mm, rev/min; a margin is a share of 1. */
interface TensionCodes {
  'no-path': object;
  'not-driven': object;
  'no-place': Figures<{ lengthMm: number }>;
  /** `long` is 1 for a belt that is longer than the drive can tighten, 0 for one too short to slip on. */
  'marked-misfit': Figures<{ lengthMm: number; long: number }>;
  'hangs-loose': Figures<{ lengthMm: number }>;
  'default-tension': Figures<{ tensionN: number }>;
  slips: AtPulley<{ margin: number; rpm: number }>;
  'little-margin': AtPulley<{ margin: number; rpm: number }>;
  'slack-side': { span: { from: string; to: string } } & AtPulley<{ effectiveN: number; rpm: number }>;
  /** `written` is 1 where the limit is the drive's own. */
  'too-much-load': AtPulley<{ loadN: number; limit: number; rpm: number; written: number }>;
  'few-teeth': AtPulley<{ teeth: number; least: number }>;
  jumps: AtPulley<{ effectiveN: number; rpm: number }>;
  'window-empty': { other: string } & AtPulley<{ leastN: number; mostN: number }>;
  'no-tension-holds': AtPulley;
  'below-window': AtPulley<{ tensionN: number; leastN: number; byN: number }>;
  'above-window': AtPulley<{ tensionN: number; mostN: number; byN: number }>;
}

export type TensionFinding = FindingOf<TensionCodes>;
export type TensionFindingCode = TensionFinding['code'];
