import type { Check } from '../drive';
import type { AtPulley, Figures, FindingOf } from '../finding';
import type { Limits } from './limits';

type AtBelt<Of extends object | null = null> = { belt: string } & (Of extends object ? Figures<Of> : object);

/** What can be told of an inspection, by code. Figures: mm, or the odometer's own unit; or words. */
interface InspectCodes {
  'no-parts': object;
  'nothing-looked-at': object;
  'stop-wobble': AtPulley<{ mm: number }>;
  'cracks-blind': AtBelt;
  'depth-and-profile': AtBelt;
  rocks: AtPulley<{ mm: number }>;
  /** `byChance`: the share of rows of random marks that fit so well. */
  repeats: AtPulley<{ turnMm: number; byChance: number }>;
  'one-reading': AtBelt<{ distance: number; unit: string; from: Limits['from']; left?: number }>;
  'no-wear': AtBelt;
  'odometer-doubted': AtBelt<{ odometer: number; before: number }>;
  'uneven-wear': AtBelt;
  'sprang-back': AtBelt<{ before: number }>;
  'far-end-open': AtBelt;
  outlived: AtBelt<{ distance: number; unit: string; over: number }>;
  aged: AtBelt<{ years: number }>;
  'wear-bends': AtBelt<{ power: number }>;
  /** `condemns` is 1 where the part counts as done until the figure is read again. */
  'odd-figure': Figures<{ check: Check; value: number; from: number; to: number; condemns?: number }>;
  'ask-kind': AtPulley;
  /** `offered`: how many of them are sound, and only offered with the others. */
  'change-with-arm': AtBelt<{ offered: number }>;
  'change-with-idler': { pulleys: readonly string[] } & AtBelt<{ offered: number }>;
  'change-pair': AtBelt<{ offered: number }>;
  'cure-oil': AtBelt;
  /** At a roller, `arm` is 1 where it sits on a sprung arm; else the belt frays. */
  'cure-line': { figures?: { readonly arm: number } };
  'cure-slip': AtBelt;
  'cure-chunks': AtBelt;
  'cure-grooves': AtPulley<{ outcome: string }>;
  'cure-arm': AtPulley;
  'cure-bearing': AtPulley;
}

/** Something to tell of an inspection. */
export type InspectTold = FindingOf<InspectCodes>;
export type InspectFindingCode = InspectTold['code'];
