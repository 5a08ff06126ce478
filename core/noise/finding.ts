import type { ListenAgain, NoiseCause } from '../drive';
import type { AtPulley, Figures, FindingOf } from '../finding';

type AtBelt = { belt: string };
/** A cause, and the id of the part that it is of. */
interface CauseOf {
  cause: NoiseCause;
  id: string;
}

/** What can be told of a drive's noise, by code. Figures: shares of 1, rev/min, seconds; or words. */
interface NoiseCodes {
  'no-route': object;
  'only-priors': object;
  /** `part`: the chance of the likeliest part, where the cause may be in several. */
  leads: Figures<CauseOf & { chance: number; part?: number }>;
  open: Figures<{ chance: number }>;
  'not-the-drive': Figures<{ chance: number }>;
  'hub-stop': AtPulley;
  'rib-stop': AtPulley;
  contradicts: Figures<{ test: string }>;
  'unknown-test': Figures<{ test: string }>;
  simulated: object;
  masked: AtBelt;
  dressed: AtBelt;
  /** `at`: the odometer that it is due at. */
  'listen-again': Figures<CauseOf & { when: ListenAgain; at?: number }>;
  'came-back': Figures<CauseOf>;
  'too-short': Figures<{ seconds: number }>;
  'nothing-heard': object;
  'matches-nothing': Figures<{ hz: number }>;
  /** Ids of the two, or `firing` for the engine; a speed that parts them, where there is one. */
  'lie-together': Figures<{ first: string; second: string; rpm?: number }>;
  'no-engine': object;
  /** The speed that was given, and up to three that the sound may be of. */
  'speed-clash': Figures<{ told: number; rpm1?: number; rpm2?: number; rpm3?: number }>;
  'rolling-bearing': AtPulley<{ chance: number; second?: string; secondChance?: number }>;
  'cylinders-default': object;
}

/** Something to tell of a drive's noise. */
export type NoiseFinding = FindingOf<NoiseCodes>;
export type NoiseFindingCode = NoiseFinding['code'];
