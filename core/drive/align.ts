import { mixed } from 'yup';
import * as is from './fields';

/** What tells how far a pulley stands out from the crank's plane. */
export const ALIGN_TOOLS = ['straightedge', 'laser', 'calliper', 'feeler', 'camera'] as const;
export type AlignTool = (typeof ALIGN_TOOLS)[number];

/** How far the same-numbered groove of a pulley stands out from the crank's plane at one place on its rim. */
export interface AlignReading {
  readonly id: string;
  readonly tool: AlignTool;
  readonly pulley: string;
  /** The place on the rim, degrees counter-clockwise from +x; at the hub, in the middle, where it is left out. */
  readonly at?: number;
  /** Out from the crank's plane, away from the engine, is +. */
  readonly mm: number;
  /** One standard deviation, mm; a default of the tool's where it is left out. */
  readonly plusMinus?: number;
  /** The engine pulled while it was read. */
  readonly load?: boolean;
  /** How far the pulley had been turned on its shaft, degrees: two readings half a turn apart show its wobble. */
  readonly turned?: number;
  /** Read before something was moved; kept for the record, and it counts no more. */
  readonly past?: boolean;
  readonly simulated?: boolean;
  /** When it was read, ISO 8601. */
  readonly date?: string;
}

const offset = () => is.needed(is.length());
/** One standard deviation; 0 for what is exact. */
const doubt = () => is.finite().min(0, 'must be 0 or more');
export const alignReading = is.item<AlignReading>({
  id: is.named('id', is.id()),
  tool: is.named('tool', is.needed(is.oneOf(ALIGN_TOOLS))),
  pulley: is.named('pulley', is.id()),
  at: is.named('position on the rim', is.angle(), '°'),
  mm: is.named('offset', offset(), 'mm'),
  plusMinus: is.named('±', doubt(), 'mm'),
  load: is.named('under load', is.yesOrNo()),
  turned: is.named('turn of the pulley', is.angle(), '°'),
  past: is.named('before it was moved', is.yesOrNo()),
  simulated: is.named('simulated', is.yesOrNo()),
  date: is.named('date', is.text(40)),
});

/** A pulley may be pressed along its shaft by `min` to `max` mm, out is +. */
export interface PressMove {
  readonly kind: 'press';
  readonly pulley: string;
  readonly min: number;
  readonly max: number;
}
/** A spacer or washer of one of these sizes goes behind it, mm; what is taken out is below zero. */
export interface ShimMove {
  readonly kind: 'shim';
  readonly pulley: string;
  readonly sizes: readonly number[];
}
/** The belt may go up to so many grooves further out on it, or in where it is below zero; or by one of a list. */
export interface GrooveMove {
  readonly kind: 'groove';
  readonly pulley: string;
  readonly steps: number | readonly number[];
}
/** Its bracket can be squared, so that its tilt is gone. */
export interface SquareMove {
  readonly kind: 'square';
  readonly pulley: string;
}
/** Another hub or pulley goes on, each with how far out it brings the grooves from where they are now, mm. */
export interface HubMove {
  readonly kind: 'hub';
  readonly pulley: string;
  readonly options: readonly { readonly name: string; readonly mm: number }[];
}
export type AlignMove = PressMove | ShimMove | GrooveMove | SquareMove | HubMove;

export const MOVE_KINDS = ['press', 'shim', 'groove', 'square', 'hub'] as const satisfies AlignMove['kind'][];
export type MoveKind = (typeof MOVE_KINDS)[number];

const steps = mixed<number | readonly number[]>().test(
  'steps',
  'must be a whole number of grooves from −60 to 60, or a list of such',
  (value) => {
    const isPart = (part: unknown) => Number.isInteger(part) && Math.abs(part as number) <= 60;
    return value === undefined || (Array.isArray(value) ? value.length <= 40 && value.every(isPart) : isPart(value));
  },
);
const anyMove = { pulley: is.named('pulley', is.id()) };
const alignMove = is.variants<AlignMove, 'kind'>('kind', 'kind', anyMove, {
  press: { ...anyMove, min: is.named('in by up to', offset(), 'mm'), max: is.named('out by up to', offset(), 'mm') },
  shim: {
    ...anyMove,
    sizes: is.named('sizes at hand', is.list(is.needed(is.length()), 40, 'must have one size or more')),
  },
  groove: {
    ...anyMove,
    steps: is.named('grooves', is.needed(steps)),
  },
  square: anyMove,
  hub: {
    ...anyMove,
    options: is.named(
      'hubs',
      is.list(
        is.item<HubMove['options'][number]>({
          name: is.named('name', is.needed(is.text(80))),
          mm: is.named('further out', offset(), 'mm'),
        }),
        40,
        'must have one hub or more',
      ),
    ),
  },
});

/** One of several depths that a piece comes in. */
export interface StackOption {
  readonly name: string;
  readonly mm: number;
  readonly plusMinus?: number;
  readonly price?: number;
  /** It is on now. */
  readonly fitted?: boolean;
}
/** One piece between the block's face and the groove: `mm` deep, or one of several options. */
export interface StackPiece {
  readonly name: string;
  readonly mm?: number;
  readonly plusMinus?: number;
  readonly options?: readonly StackOption[];
  /** The option that was settled on, by its name. */
  readonly chosen?: string;
}
/** What stands between the block's face and a pulley's groove. */
export interface AlignStack {
  readonly id: string;
  readonly pulley: string;
  readonly pieces: readonly StackPiece[];
}

const price = () => is.finite('a price', 1e6).min(0, 'must be 0 or more');
const option = is.item<StackOption>({
  name: is.named('name', is.needed(is.text(80))),
  mm: is.named('depth', offset(), 'mm'),
  plusMinus: is.named('±', doubt(), 'mm'),
  price: is.named('price', price()),
  fitted: is.named('fitted now', is.yesOrNo()),
});
const piece = is.item<StackPiece>({
  name: is.named('name', is.needed(is.text(80))),
  mm: is.named('depth', is.length(), 'mm'),
  plusMinus: is.named('±', doubt(), 'mm'),
  options: is.named('depths sold', is.optionalList(option, 60)),
  chosen: is.named('chosen depth', is.text(80)),
});
const stack = is.item<AlignStack>({
  id: is.named('id', is.id()),
  pulley: is.named('pulley', is.id()),
  pieces: is.named('pieces', is.list(piece, 20)),
});

/** How the datum was held: a straightedge on the crank's face is only as true as it bears long. Lengths mm. */
export interface AlignDatum {
  /** Across the crank's face where the straightedge bears. */
  readonly faceMm?: number;
  /** The straightedge's own length. */
  readonly straightedgeMm?: number;
  /** One standard deviation of its seat at either end. */
  readonly plusMinus?: number;
}

/** Where the belt's track was seen on a smooth roller: off the middle of its face, out is +, mm. */
export interface SeenTrack {
  readonly pulley: string;
  readonly mm: number;
  /** When it was seen, ISO 8601. */
  readonly date?: string;
}

/** A cure that was carried out. */
export interface DoneMove {
  readonly id: string;
  readonly pulley: string;
  readonly kind: MoveKind;
  readonly mm?: number;
  readonly steps?: number;
  readonly date?: string;
}

export interface Align {
  readonly datum?: AlignDatum;
  readonly readings?: readonly AlignReading[];
  readonly moves?: readonly AlignMove[];
  readonly stacks?: readonly AlignStack[];
  readonly tracks?: readonly SeenTrack[];
  readonly done?: readonly DoneMove[];
}

export const align = is.record<Align>({
  datum: is.named(
    'how the datum was measured',
    is.record<AlignDatum>({
      faceMm: is.named("width of the crank's face", is.size(), 'mm'),
      straightedgeMm: is.named('length of the straightedge', is.size(), 'mm'),
      plusMinus: is.named('±', doubt(), 'mm'),
    }),
  ),
  readings: is.named('readings', is.optionalList(alignReading, 400)),
  moves: is.named('possible moves', is.optionalList(alignMove, 120)),
  stacks: is.named('stacks', is.optionalList(stack, 64)),
  tracks: is.named(
    'tracks',
    is.optionalList(
      is.item<SeenTrack>({
        pulley: is.named('pulley', is.id()),
        mm: is.named('off the middle', offset(), 'mm'),
        date: is.named('date', is.text(40)),
      }),
      64,
    ),
  ),
  done: is.named(
    'moves done',
    is.optionalList(
      is.item<DoneMove>({
        id: is.named('id', is.id()),
        pulley: is.named('pulley', is.id()),
        kind: is.named('kind', is.needed(is.oneOf(MOVE_KINDS))),
        mm: is.named('moved out', is.length(), 'mm'),
        steps: is.named('grooves out', is.finite('a whole number of grooves', 60)),
        date: is.named('date', is.text(40)),
      }),
      200,
    ),
  ),
});
