import * as is from './fields';
import type { Point } from './fields';
import { type Role, ROLES } from './role';
import type { Surface } from '../section';
import { outputPoint, type OutputPoint, type SpeedBand, torqueCurve, type TorqueCurve } from './speeds';

export type Rotation = 'cw' | 'ccw';

/** What any pulley may have, whatever its surface: a face may be changed, and changed back. Lengths in mm. */
interface AnyPulley {
  readonly id: string;
  readonly grooves?: number;
  /** Degrees between a V groove's flanks. */
  readonly grooveAngle?: number;
  /** Of a V groove: the new belt's top above the rim. */
  readonly ride?: number;
  /** Axial position, positive away from the engine; 0 when not given. */
  readonly plane?: number;
  /** Rims keep the belt on a face that would not guide it by itself. */
  readonly flanged?: boolean;
  /** May be left off: a route may go without it. */
  readonly optional?: boolean;
  /** How it sits on its shaft: it says what it may do by hand. Nobody knows where it is left out. */
  readonly kind?: PulleyKind;
}

/** Fixed to its shaft; free to run on ahead of it; the same with a spring between; or coupled while a clutch is fed. */
export const PULLEY_KINDS = ['solid', 'one-way', 'decoupling', 'magnetic-clutch'] as const;
export type PulleyKind = (typeof PULLEY_KINDS)[number];

/** A pulley whose size is read across it: `diameter` is what callipers read. */
interface RoundPulley extends AnyPulley {
  readonly diameter: number;
  readonly teeth?: never;
}
export interface RibbedPulley extends RoundPulley {
  readonly surface: 'ribbed';
}
export interface VeePulley extends RoundPulley {
  readonly surface: 'vee';
}
export interface SmoothPulley extends RoundPulley {
  readonly surface: 'smooth';
}
/** A pulley whose size is its number of teeth; `diameter` is over their tips, where it was read. */
export interface ToothedPulley extends AnyPulley {
  readonly surface: 'toothed';
  readonly teeth: number;
  readonly diameter?: number;
}
/** One pulley on a shaft. */
export type Pulley = RibbedPulley | VeePulley | SmoothPulley | ToothedPulley;

const anyPulley: is.Fields<AnyPulley> = {
  id: is.named('id', is.id()),
  grooves: is.named('grooves', is.wholeNumber('a whole number of grooves', 60)),
  grooveAngle: is.named(
    'groove angle',
    is.angle().moreThan(0, 'must be more than 0°').lessThan(180, 'must be less than 180°'),
    '°',
  ),
  ride: is.named('belt top above rim', is.length(), 'mm'),
  plane: is.named('plane', is.length(), 'mm'),
  flanged: is.named('flanged', is.yesOrNo()),
  optional: is.named('may be left off', is.yesOrNo()),
  kind: is.named('kind of pulley', is.oneOf(PULLEY_KINDS)),
};
const roundPulley = { ...anyPulley, diameter: is.named('diameter', is.needed(is.size()), 'mm'), teeth: is.ignored() };
const teeth = is
  .finite('a whole number of teeth')
  .integer('must be a whole number of teeth')
  .min(0, 'must be 0 teeth or more')
  .max(10_000, 'must be 10,000 teeth at most');
const pulley = is.variants<Pulley, 'surface'>(
  'surface',
  'face',
  roundPulley,
  {
    ribbed: roundPulley,
    vee: roundPulley,
    smooth: roundPulley,
    toothed: {
      ...anyPulley,
      teeth: is.named('teeth', is.needed(teeth)),
      diameter: is.named('diameter', is.size(), 'mm'),
    },
  } satisfies Record<Surface, unknown>,
  { order: ['id', 'surface', 'diameter'] },
);

/**
 * A spring turns the arm about its pivot against the belt. Angles in degrees, torque in N·m, rate in N·m for a degree.
 */
export interface SprungArm {
  readonly kind: 'sprung-arm';
  readonly pivot: Point;
  readonly armLength: number;
  readonly freeAngle: number;
  readonly fullAngle: number;
  readonly shortMark?: number;
  readonly longMark?: number;
  readonly springTorqueAtFree?: number;
  readonly springRate?: number;
  /** A hydraulic strut that pushes the arm besides its spring, or in place of one. */
  readonly strut?: Strut;
}
/**
 * From a fixed `anchor` to `lug` on the arm (given where the arm is now). `closed` is the distance of its eyes pushed
 * right in, mm; the points give its force, N, over the stroke out from there, mm.
 */
export interface Strut {
  readonly anchor: Point;
  readonly lug: Point;
  readonly closed: number;
  readonly points: readonly { readonly stroke: number; readonly force: number }[];
}
/** The accessory swings about a pivot, from the slack end of its slot to the tight one, degrees. */
export interface SlotPivot {
  readonly kind: 'slot-pivot';
  readonly pivot: Point;
  readonly inAngle: number;
  readonly outAngle: number;
  readonly pitches?: readonly number[];
}
/** The shaft slides in a direction, degrees, by up to `travel` mm. */
export interface Slide {
  readonly kind: 'slide';
  readonly direction: number;
  readonly travel: number;
  readonly pitches?: readonly number[];
}
/** A link from the anchor to the lug swings the accessory about its pivot. */
export interface Turnbuckle {
  readonly kind: 'turnbuckle';
  readonly pivot: Point;
  readonly anchor: Point;
  readonly lug: Point;
  readonly minLength: number;
  readonly maxLength: number;
  /** Of its threads, mm a turn each. */
  readonly pitches?: readonly number[];
}
/** A split V sheave with shims between its halves; thicknesses in mm. */
export interface Shims {
  readonly kind: 'shims';
  readonly shims: readonly number[];
  /** Taken out and kept outside the halves: each, or all together. */
  readonly spare?: number | readonly number[];
}
export interface FixedCentres {
  readonly kind: 'fixed';
}
export type Adjuster = SprungArm | SlotPivot | Slide | Turnbuckle | Shims | FixedCentres;

const strut = is.record<Strut>({
  anchor: is.named('anchor', is.point()),
  lug: is.named('lug', is.point()),
  closed: is.named('closed length', is.needed(is.size()), 'mm'),
  points: is.named(
    'force over its stroke',
    is.list(
      is.item<Strut['points'][number]>({
        stroke: is.named('stroke', is.needed(is.size()), 'mm'),
        force: is.named('force', is.needed(is.force()), 'N'),
      }),
      40,
      'must have one point or more',
    ),
  ),
});
/** What one turn of each thread moves it, mm: one for a screw, two for a link with a left-hand and a right-hand end. */
const pitches = is.optionalList(
  is.needed(is.size().moreThan(0, 'must be more than 0 mm').max(10, 'must be 10 mm at most')),
  2,
);

const adjuster = is.variants<Adjuster, 'kind'>(
  'kind',
  'kind',
  {},
  {
    'sprung-arm': {
      pivot: is.named('pivot', is.point()),
      armLength: is.named('arm length', is.needed(is.size()), 'mm'),
      freeAngle: is.named('free angle', is.needed(is.angle()), '°'),
      fullAngle: is.named('angle pulled fully back', is.needed(is.angle()), '°'),
      shortMark: is.named('angle at short mark', is.angle(), '°'),
      longMark: is.named('angle at long mark', is.angle(), '°'),
      springTorqueAtFree: is.named('spring torque at free angle', is.finite(), 'N·m'),
      springRate: is.named('spring rate', is.finite(), 'N·m per degree'),
      strut: is.named('strut', strut),
    },
    'slot-pivot': {
      pivot: is.named('pivot', is.point()),
      inAngle: is.named('angle at slack end', is.needed(is.angle()), '°'),
      outAngle: is.named('angle at tight end', is.needed(is.angle()), '°'),
      pitches: is.named('pitch of its threads', pitches),
    },
    slide: {
      direction: is.named('direction of travel', is.needed(is.angle()), '°'),
      travel: is.named('travel', is.needed(is.length()), 'mm'),
      pitches: is.named('pitch of its threads', pitches),
    },
    turnbuckle: {
      pivot: is.named('pivot', is.point()),
      anchor: is.named('link anchor', is.point()),
      lug: is.named('link lug', is.point()),
      minLength: is.named('shortest link', is.needed(is.size()), 'mm'),
      maxLength: is.named('longest link', is.needed(is.size()), 'mm'),
      pitches: is.named('pitch of its threads', pitches),
    },
    shims: {
      shims: is.named('shims', is.list(is.needed(is.size()), 40)),
      spare: is.named('shims taken out', is.numberOrNumbers('a thickness, or a list of them, in mm')),
    },
    fixed: {},
  },
  { optional: true },
);

/** One shaft with its pulleys. x right, y up, seen from the front. */
export interface Station {
  readonly id: string;
  readonly role: Role;
  readonly label?: string;
  readonly x: number;
  readonly y: number;
  readonly requires?: Rotation;
  readonly adjuster?: Adjuster;
  /** Not bought yet, or to be left out: a route may go without it. */
  readonly optional?: boolean;
  /** Where an optional one may be placed, mm. */
  readonly region?: Point & { readonly radius: number };
  /** What this very accessory may turn; the shop's or the default band for its role where it is left out. */
  readonly speedBand?: Partial<SpeedBand>;
  /** Of an alternator or generator: points of its maker's curve. */
  readonly output?: readonly OutputPoint[];
  /** Of a pump or fan: what it must turn at an engine speed, rev/min. */
  readonly need?: { readonly rpm: number; readonly engineRpm: number };
  /** Its power at a speed of its own. */
  readonly power?: { readonly rpm: number; readonly kw: number };
  /** What it takes at its own speed, one curve a state; goes before `power`. */
  readonly torque?: readonly TorqueCurve[];
  /** The most its bearings bear, N; Emery's default for its role where it is left out. */
  readonly hubLoadLimit?: number;
  readonly pulleys: readonly Pulley[];
}

export const station = is.item<Station>({
  id: is.named('id', is.id()),
  role: is.named('kind', is.needed(is.oneOf(ROLES))),
  label: is.named('name', is.text(80)),
  x: is.named('right of the crank', is.needed(is.length()), 'mm'),
  y: is.named('above the crank', is.needed(is.length()), 'mm'),
  requires: is.named('direction of rotation needed', is.oneOf(['cw', 'ccw'])),
  adjuster: is.named('adjuster', adjuster),
  optional: is.named('optional', is.yesOrNo()),
  region: is.named(
    'allowed position',
    is.record<NonNullable<Station['region']>>({
      x: is.named('right of the crank', is.needed(is.length()), 'mm'),
      y: is.named('above the crank', is.needed(is.length()), 'mm'),
      radius: is.named('radius', is.needed(is.size()), 'mm'),
    }),
  ),
  speedBand: is.named(
    'speed limits',
    is.record<NonNullable<Station['speedBand']>>({
      least: is.named('least', is.rpm().nullable(), 'rev/min'),
      continuous: is.named('continuous', is.rpm().nullable(), 'rev/min'),
      burst: is.named('short time', is.rpm().nullable(), 'rev/min'),
    }),
  ),
  output: is.named('output curve', is.optionalList(outputPoint, 60)),
  need: is.named(
    'speed it needs',
    is.record<NonNullable<Station['need']>>({
      rpm: is.named('speed', is.needed(is.rpm()), 'rev/min'),
      engineRpm: is.named("at the engine's", is.needed(is.rpm().moreThan(0, 'must be more than 0 rev/min')), 'rev/min'),
    }),
  ),
  power: is.named(
    'power it needs',
    is.record<NonNullable<Station['power']>>({
      rpm: is.named('at its own', is.needed(is.rpm().moreThan(0, 'must be more than 0 rev/min')), 'rev/min'),
      kw: is.named('power', is.needed(is.finite('a power in kW', 10_000).min(0, 'must be 0 kW or more')), 'kW'),
    }),
  ),
  torque: is.named('torque it needs', is.optionalList(torqueCurve, 12)),
  hubLoadLimit: is.named('bearing load limit', is.force().moreThan(0, 'must be more than 0 N'), 'N'),
  pulleys: is.named('sheaves', is.list(pulley, 12, 'must have one pulley or more')),
});
