import { lazy, type ObjectSchema } from 'yup';
import * as is from './fields';
import { LISTEN_AGAIN, type ListenAgain, ODOMETER_UNITS, type OdometerUnit } from './odometer';

/** What a noise sounds like; `none` where none is heard. */
export const NOISE_KINDS = ['chirp', 'squeal', 'rumble', 'whine', 'none'] as const;
export type NoiseKind = (typeof NOISE_KINDS)[number];

/** How an engine speed was read: off a scan tool, off a tachometer's needle, or an idle figure out of a book. */
export const SPEED_FROM = ['scan', 'needle', 'idle'] as const;
export type SpeedFrom = (typeof SPEED_FROM)[number];

/** What makes a noise. */
export const NOISE_CAUSES = [
  'misaligned',
  'loose',
  'tight',
  'worn-belt',
  'contaminated',
  'bearing',
  'arm-weak',
  'arm-stuck',
  'arm-cocked',
  'hub-wobble',
  'wrong-length',
  'wrong-groove',
  'bracket-flex',
  'debris',
  'one-way-clutch',
  'belt-spot',
] as const;
export type NoiseCause = (typeof NOISE_CAUSES)[number];

const YES_NO = ['yes', 'no'] as const;
/** What one can look at, hear or try, what it concerns, and how it can turn out. */
export const NOISE_TESTS = {
  kind: { on: 'drive', outcomes: ['chirp', 'squeal', 'rumble', 'whine'] },
  repeat: { on: 'turning', outcomes: ['belt', 'pulley', 'bearing', 'tooth', 'engine', 'none'] },
  water: { on: 'drive', outcomes: ['quiet-then-back', 'louder', 'no-change'] },
  'only-cold': { on: 'drive', outcomes: YES_NO },
  'only-hot': { on: 'drive', outcomes: YES_NO },
  'only-wet': { on: 'drive', outcomes: YES_NO },
  'under-load': { on: 'drive', outcomes: YES_NO },
  'one-speed': { on: 'drive', outcomes: YES_NO },
  'charge-lamp': { on: 'drive', outcomes: YES_NO },
  'engine-hot': { on: 'drive', outcomes: YES_NO },
  'new-belt': { on: 'belt', outcomes: ['began-with-it', 'quiet-then-back', 'no'] },
  dust: { on: 'belt', outcomes: YES_NO },
  flapping: { on: 'belt', outcomes: YES_NO },
  'edge-wear': { on: 'belt', outcomes: YES_NO },
  'belt-off': { on: 'belt', outcomes: ['gone', 'stays'] },
  'length-doubt': { on: 'belt', outcomes: YES_NO },
  ribs: { on: 'belt', outcomes: ['sound', 'worn', 'cracked'] },
  spot: { on: 'belt', outcomes: YES_NO },
  surface: { on: 'belt', outcomes: ['clean', 'oily', 'dressed'] },
  slack: { on: 'belt', outcomes: YES_NO },
  taut: { on: 'belt', outcomes: YES_NO },
  wobble: { on: 'pulley', outcomes: YES_NO },
  spin: { on: 'pulley', outcomes: ['quiet', 'grinds', 'freewheels'] },
  rock: { on: 'pulley', outcomes: YES_NO },
  grooves: { on: 'pulley', outcomes: ['clean', 'grit'] },
  count: { on: 'pulley', outcomes: ['right', 'off'] },
  straightedge: { on: 'pulley', outcomes: ['in-line', 'off'] },
  bracket: { on: 'pulley', outcomes: ['firm', 'moves'] },
  clutch: { on: 'pulley', outcomes: ['holds', 'locked', 'slips'] },
  arm: { on: 'pulley', outcomes: ['smooth', 'binds', 'stuck'] },
  'arm-swing': { on: 'pulley', outcomes: YES_NO },
  cocked: { on: 'pulley', outcomes: YES_NO },
} as const;
export type NoiseTest = keyof typeof NOISE_TESTS;

/** What was seen, heard or tried. Of one test at one part the latest counts. */
export interface NoiseEvidence {
  /** One of `NOISE_TESTS`; what a newer Emery knows besides is kept, and counts for nothing here. */
  readonly test: string;
  readonly outcome: string;
  readonly pulley?: string;
  readonly belt?: string;
  readonly at?: string;
  readonly odometer?: number;
  /** Seen before something was put right: kept for the record, and it counts no more. */
  readonly past?: boolean;
  readonly simulated?: boolean;
}

/** The test of a piece of evidence, where this Emery knows it. */
export const noiseTest = (test: string): test is NoiseTest => Object.hasOwn(NOISE_TESTS, test);

const odometer = () => is.finite('a reading of the odometer', 1e7).min(0, 'must be 0 or more');
const name = () => is.text(80).matches(/\S/, 'must not be blank');
const anyEvidence = {
  test: is.named('test', is.needed(is.text(40))),
  outcome: is.named('outcome', is.needed(is.text(40))),
  pulley: is.named('pulley', name()),
  belt: is.named('belt', name()),
  at: is.named('date', is.text(40)),
  odometer: is.named('odometer', odometer()),
  past: is.named('removed', is.yesOrNo()),
  simulated: is.named('simulated', is.yesOrNo()),
};
/** What a repeat names: teeth their belt, a bearing the pulley of its shaft. */
const OUTCOME_NAMES: Readonly<Record<string, 'belt' | 'pulley'>> = {
  belt: 'belt',
  tooth: 'belt',
  pulley: 'pulley',
  bearing: 'pulley',
};
/** What evidence is to be, by its test: one of the test's outcomes, at a part where it concerns one. */
function evidenceOf(test: NoiseTest | null, outcome: unknown): ObjectSchema<NoiseEvidence> {
  if (test === null) return is.item<NoiseEvidence>(anyEvidence);
  const { on, outcomes } = NOISE_TESTS[test];
  const asked = (part: 'belt' | 'pulley') =>
    on === part || (on === 'turning' && OUTCOME_NAMES[outcome as string] === part) ? is.needed(name()) : name();
  return is.item<NoiseEvidence>({
    ...anyEvidence,
    outcome: is.named('outcome', is.needed(is.oneOf<string>(outcomes))),
    pulley: is.named('pulley', asked('pulley')),
    belt: is.named('belt', asked('belt')),
  });
}
const noiseEvidence = lazy((value: { test?: unknown; outcome?: unknown } | null | undefined) => {
  const test = typeof value?.test === 'string' && noiseTest(value.test) ? value.test : null;
  return evidenceOf(test, value?.outcome);
}).meta({ shapes: [evidenceOf(null, undefined)], needed: true } as Record<string, unknown>);

/** A sound that was kept, with what was heard in it. `wav` is a small WAV file of it, in base64. */
export interface NoiseClip {
  readonly id: string;
  readonly kind: NoiseKind;
  readonly rpm: number;
  readonly pitchHz?: number;
  readonly repeatHz?: number;
  readonly plusMinusHz?: number;
  readonly seconds?: number;
  readonly wav?: string;
  readonly name?: string;
  readonly at?: string;
  readonly odometer?: number;
  readonly simulated?: boolean;
}

/** What was put right, and whether the noise stayed away. */
export interface NoiseCure {
  readonly id: string;
  readonly cause: NoiseCause;
  /** The part, a pulley or a belt. */
  readonly part: string;
  readonly note?: string;
  readonly at?: string;
  readonly odometer?: number;
  readonly odometerUnit?: OdometerUnit;
  readonly listened?: readonly {
    readonly when: ListenAgain;
    readonly outcome: 'quiet' | 'back';
    readonly at?: string;
    readonly odometer?: number;
  }[];
}

/** A clip of 8 bits, 11 kHz and four seconds, and some more for what others write. */
const MOST_CLIP_CHARACTERS = 90_000;
const hertz = () => is.finite('a frequency in Hz', 100_000).min(0, 'must be 0 or more');
const clip = is.item<NoiseClip>({
  id: is.named('id', is.id()),
  kind: is.named('kind', is.needed(is.oneOf(NOISE_KINDS))),
  rpm: is.named('engine speed', is.needed(is.rpm()), 'rev/min'),
  pitchHz: is.named('pitch', hertz(), 'Hz'),
  repeatHz: is.named('repeats', hertz(), 'Hz'),
  plusMinusHz: is.named('±', hertz(), 'Hz'),
  seconds: is.named('length', is.finite('a number of seconds', 3600).min(0, 'must be 0 or more'), 's'),
  wav: is.named('sound itself', is.text(MOST_CLIP_CHARACTERS)),
  name: is.named('name', is.text(120)),
  at: is.named('date', is.text(40)),
  odometer: is.named('odometer', odometer()),
  simulated: is.named('simulated', is.yesOrNo()),
});
const cure = is.item<NoiseCure>({
  id: is.named('id', is.id()),
  cause: is.named('cause', is.needed(is.oneOf(NOISE_CAUSES))),
  part: is.named('part', is.id()),
  note: is.named('note', is.text(400)),
  at: is.named('date', is.text(40)),
  odometer: is.named('odometer', odometer()),
  odometerUnit: is.named('odometer unit', is.oneOf(ODOMETER_UNITS)),
  listened: is.named(
    'times listened again',
    is.optionalList(
      is.item<NonNullable<NoiseCure['listened']>[number]>({
        when: is.named('when', is.needed(is.oneOf(LISTEN_AGAIN))),
        outcome: is.named('outcome', is.needed(is.oneOf(['quiet', 'back'] as const))),
        at: is.named('date', is.text(40)),
        odometer: is.named('odometer', odometer()),
      }),
      20,
    ),
  ),
});

/** What is known of a drive's noise. */
export interface Noise {
  /** Cylinders of the four-stroke engine, for its firing rate; a default where it is left out. */
  readonly cylinders?: number;
  /** The engine speed at which it was listened to last, rev/min. */
  readonly rpm?: number;
  /** How that speed was read; a tachometer's needle where it is left out. */
  readonly rpmFrom?: SpeedFrom;
  readonly evidence?: readonly NoiseEvidence[];
  readonly clips?: readonly NoiseClip[];
  readonly cures?: readonly NoiseCure[];
}

export const noise = is.record<Noise>({
  cylinders: is.named('cylinders', is.wholeNumber('a whole number of cylinders', 24)),
  rpm: is.named('engine speed', is.rpm(), 'rev/min'),
  rpmFrom: is.named('how the engine speed was read', is.oneOf(SPEED_FROM)),
  evidence: is.named('observations', is.optionalList<NoiseEvidence>(noiseEvidence as never, 400)),
  clips: is.named('sounds', is.optionalList(clip, 60)),
  cures: is.named('cures', is.optionalList(cure, 60)),
});
