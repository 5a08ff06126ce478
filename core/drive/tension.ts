import * as is from './fields';

/** The schools of checking a belt's tension by hand. */
export const TENSION_WAYS = ['push', 'free-play', 'twist', 'gauge', 'pluck', 'pointer'] as const;
export type TensionWay = (typeof TENSION_WAYS)[number];

/** When a reading was taken: on a new belt, after its run-in, on a hot engine, on a belt in use. */
export const BELT_AGES = ['new', 'run-in', 'hot', 'worn'] as const;
export type BeltAge = (typeof BELT_AGES)[number];

/** A free span, by the pulleys it runs between as the belt travels. */
export interface SpanName {
  readonly from: string;
  readonly to: string;
}

/** What every reading of a belt's tension may say. One without its way's own figures tells nothing. */
interface AnyTensionReading {
  readonly id: string;
  readonly span?: SpanName;
  /** One standard deviation of what was read, in its own unit; a default of the way's where it is left out. */
  readonly plusMinus?: number;
  readonly at?: string;
  readonly odometer?: number;
  readonly when?: BeltAge;
  /** Of a sprung arm: how the engine was turned by hand just before. */
  readonly turned?: 'forward' | 'back';
  /** It came from a stand-in that ships with Emery. */
  readonly simulated?: boolean;
}

/** `mm` at mid-span under `newtons`. */
export interface PushReading extends AnyTensionReading {
  readonly way: 'push';
  readonly newtons?: number;
  readonly mm?: number;
}
/** `mm` at mid-span under a thumb, whose push is `newtons`; a default thumb's where it is left out. */
export interface FreePlayReading extends AnyTensionReading {
  readonly way: 'free-play';
  readonly mm?: number;
  readonly newtons?: number;
}
/** `degrees` that finger and thumb turn the middle of the span, with `nm`; a default hand's where it is left out. */
export interface TwistReading extends AnyTensionReading {
  readonly way: 'twist';
  readonly degrees?: number;
  readonly nm?: number;
}
/** What a click gauge shows of the belt's pull, in one of its units. */
export interface GaugeReading extends AnyTensionReading {
  readonly way: 'gauge';
  readonly newtons?: number;
  readonly kgf?: number;
  readonly lbf?: number;
}
/** The note of a plucked span, Hz. */
export interface PluckReading extends AnyTensionReading {
  readonly way: 'pluck';
  readonly hz?: number;
}
/** Where a sprung arm's pointer stands, degrees. */
export interface PointerReading extends AnyTensionReading {
  readonly way: 'pointer';
  readonly degrees?: number;
}
export type TensionReading =
  PushReading | FreePlayReading | TwistReading | GaugeReading | PluckReading | PointerReading;

const anyReading: is.Fields<AnyTensionReading> = {
  id: is.named('id', is.id()),
  span: is.named(
    'span',
    is.record<SpanName>({ from: is.named('pulley it starts at', is.id()), to: is.named('pulley it ends at', is.id()) }),
  ),
  plusMinus: is.named('±', is.plusMinus()),
  at: is.named('date', is.text(40)),
  odometer: is.named('odometer', is.finite().min(0, 'must be 0 or more')),
  when: is.named('age of the belt', is.oneOf(BELT_AGES)),
  turned: is.named('direction the engine was turned', is.oneOf(['forward', 'back'])),
  simulated: is.named('simulated', is.yesOrNo()),
};
const positive = (what: string, max: number) => is.finite(what, max).moreThan(0, 'must be more than 0');
const newtons = () => positive('a force', 20_000);
const deflection = () => positive('a deflection in mm', 1000);

export const tensionReading = is.variants<TensionReading, 'way'>('way', 'check', anyReading, {
  push: { ...anyReading, newtons: is.named('force', newtons(), 'N'), mm: is.named('deflection', deflection(), 'mm') },
  'free-play': {
    ...anyReading,
    mm: is.named('deflection', deflection(), 'mm'),
    newtons: is.named('force', newtons(), 'N'),
  },
  twist: {
    ...anyReading,
    degrees: is.named('angle', positive('a number of degrees', 360), '°'),
    nm: is.named('torque', positive('a torque in N·m', 100), 'N·m'),
  },
  gauge: {
    ...anyReading,
    newtons: is.named('force', newtons(), 'N'),
    kgf: is.named('force in kgf', newtons()),
    lbf: is.named('force in lbf', newtons()),
  },
  pluck: { ...anyReading, hz: is.named('note', positive('a frequency in Hz', 5000), 'Hz') },
  pointer: { ...anyReading, degrees: is.named('angle', is.angle(), '°') },
});

/** When a new belt went on, and when it is to be looked at next. */
export interface BeltCare {
  /** When the new belt was set, and at what reading of the odometer. */
  readonly fittedAt?: string;
  readonly fittedOdometer?: number;
  /** What is printed on it: its maker's number, to ask for again. */
  readonly number?: string;
  /** When its run-in began, while it runs; how long it is to be, minutes. */
  readonly runInFrom?: string;
  readonly runInMinutes?: number;
  /** When it was set again after the run-in. */
  readonly setAgainAt?: string;
  /** The next look: a day (ISO 8601), or a reading of the odometer, whichever comes first. */
  readonly nextLookAt?: string;
  readonly nextLookOdometer?: number;
}

const reading = () => is.finite('a reading of the odometer', 1e7).min(0, 'must be 0 or more');
export const beltCare = is.record<BeltCare>({
  fittedAt: is.named('day it was fitted', is.text(40)),
  fittedOdometer: is.named('odometer when it was fitted', reading()),
  number: is.named('serial number', is.text(60)),
  runInFrom: is.named('start of the run-in', is.text(40)),
  runInMinutes: is.named('run-in', positive('a number of minutes', 600), 'min'),
  setAgainAt: is.named('day it was set again', is.text(40)),
  nextLookAt: is.named('day of the next look', is.text(40)),
  nextLookOdometer: is.named('odometer at the next look', reading()),
});
