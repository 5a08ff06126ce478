import type { AtPulley, Figures, FindingOf } from '../finding';
import type { Suspect } from './loaded';

/** A run's angle and its ±, the limit that it is held to, degrees; `read` is 1 where both its pulleys are read. */
type RunFigures = { span: { from: string; to: string } } & AtPulley<{
  deg: number;
  plusMinusDeg: number;
  limitDeg: number;
  read: number;
}>;
/** What a reading says, and what it was probably meant to say, mm. */
type Slipped = AtPulley<{ mm: number; meantMm: number }>;

/** What can be told of how a belt lies, by code. Figures: mm, degrees; or words. */
interface AlignCodes {
  'no-path': object;
  'few-guides': object;
  'not-read': AtPulley & { pulleys: readonly string[] };
  'run-wrong': RunFigures;
  'run-watch': RunFigures;
  /** How many ribs it is off, > 0 outward. */
  'rib-off': AtPulley<{ ribs: number }>;
  /** `free` is 1 where a groove is free on the side it should go to. */
  'stands-a-rib-off': AtPulley<{ ribs: number; free: number }>;
  'hangs-over': AtPulley<{ off: number; grooves: number }>;
  'groove-not-there': AtPulley;
  'wrong-rib': Slipped;
  'other-side': Slipped;
  'inch-for-mm': Slipped;
  'readings-disagree': AtPulley<{ apartMm: number }>;
  'straightedge-short': AtPulley;
  'load-by-hand': AtPulley;
  'simulated-mixed': AtPulley;
  wobbles: AtPulley<{ runOutMm: number }>;
  /** `arm` is 1 where it sits on a sprung arm. */
  steers: AtPulley<{ steersDeg: number; trackMm: number; arm: number }>;
  'track-differs': AtPulley<{ seenMm: number; trackMm: number; arm: number }>;
  'moved-under-load': AtPulley<{ movedMm: number; tiltDeg: number; suspect: Suspect; or: Suspect | '' }>;
  'no-cure': Figures<{ deg: number }>;
  'only-watch': Figures<{ deg: number }>;
  'plan-stopped': object;
  'stacks-apart': { other: string } & AtPulley<{ apartMm: number; plusMinusMm: number }>;
  'piece-without-depth': AtPulley<{ piece: string }>;
  'too-many-sets': Figures<{ count: number }>;
}

/** Something to tell of how a belt lies. */
export type AlignFinding = FindingOf<AlignCodes>;
export type AlignFindingCode = AlignFinding['code'];
