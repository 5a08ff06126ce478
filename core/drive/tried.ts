import * as is from './fields';
import { TRIED_LIST_WORDS } from './labels';
import { type AdjusterState, STATES } from './measuring';
import { keptPicture, type KeptPicture } from './survey';

/** What happened when a belt was tried on: it stayed short of the last rim, went on only by force, or went on. */
export const TRIED_OUTCOMES = ['will-not-go-on', 'forced', 'on'] as const;
export type TriedOutcome = (typeof TRIED_OUTCOMES)[number];

/** One belt held against the engine. */
export interface TriedBelt {
  readonly id: string;
  /** As printed on it; `lengthMm` takes precedence where both are given. */
  readonly marking?: string;
  /** Its marked length, in the section's own basis. */
  readonly lengthMm?: number;
  readonly outcome: TriedOutcome;
  /** Where the adjuster stood with the belt taut: by name, or by one of the readings below. */
  readonly state?: AdjusterState;
  /** A sprung arm's pointer, degrees as drawn. */
  readonly pointerDeg?: number;
  /** Of a slot, a slide or a screw, from its slack end. */
  readonly travelMm?: number;
  /** Turns left on a turnbuckle to its tight end. */
  readonly turns?: number;
  /** Shims left between the halves of a split sheave. */
  readonly shims?: number;
  /** One standard deviation of the reading, in its own unit. */
  readonly plusMinus?: number;
  /** The pulleys beside which a span rubbed. */
  readonly rubs?: readonly string[];
  /** It slipped, with the adjuster as far as it goes. */
  readonly slips?: boolean;
  /** True for one that stayed on, false for one that went back. */
  readonly kept?: boolean;
  /** The old belt, grown by its use. */
  readonly worn?: boolean;
  /** ISO 8601. */
  readonly at?: string;
  /** Of the pointer. */
  readonly photo?: KeptPicture;
}

/** The ways to say where the adjuster stood; the first that is given counts. */
export const TRIED_READINGS = ['pointerDeg', 'travelMm', 'turns', 'shims'] as const;
export type TriedReading = (typeof TRIED_READINGS)[number];

export const triedBelt = is
  .item<TriedBelt>({
    id: is.named('id', is.id()),
    marking: is.named('marking', is.text(60)),
    lengthMm: is.named('length', is.size(), 'mm'),
    outcome: is.named('outcome', is.needed(is.oneOf(TRIED_OUTCOMES))),
    state: is.named('adjuster position', is.oneOf(STATES)),
    pointerDeg: is.named('pointer', is.angle(), '°'),
    travelMm: is.named('travel from the slack end', is.length(), 'mm'),
    turns: is.named('turns left', is.finite()),
    shims: is.named('shims left', is.fraction(100)),
    plusMinus: is.named('±', is.plusMinus()),
    rubs: is.named('rubs at', is.optionalList(is.id(), 128)),
    slips: is.named('slips', is.yesOrNo()),
    kept: is.named('kept', is.yesOrNo()),
    worn: is.named('old belt', is.yesOrNo()),
    at: is.named('date', is.text(40)),
    photo: is.named('picture', is.record<KeptPicture>(keptPicture)),
  })
  .test('which', TRIED_LIST_WORDS.needs, (value) => {
    const belt = value as Partial<TriedBelt> | undefined;
    return !belt || belt.lengthMm !== undefined || (belt.marking ?? '').trim() !== '';
  });
