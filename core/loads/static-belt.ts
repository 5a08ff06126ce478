import {
  armTension,
  cordLengthOf,
  defaultSetting,
  fractionFor,
  lengthCurve,
  stretchTension,
  travelOf,
} from '../adjuster';
import { type Belt, type Drive, findPulley } from '../drive';
import { type BeltPath, type Point, solveDrive } from '../path';
import { markedLengthMm } from '../section';
import { gripOf, massOf, sectionOf } from './belt-figures';
import { toRadians } from '../numeric';

/** What the tension at rest follows from: see `standingOf`. */
export type TensionSource = 'arm' | 'given' | 'stretch' | 'default';

/** A free span of a belt at rest. `along` is its direction, of length 1. */
export interface FreeSpan {
  from: string;
  to: string;
  length: number;
  along: Point;
  start: Point;
  end: Point;
}

/** One pulley of a belt, as the sums on its tension need it. */
export interface Grip {
  pulley: string;
  station: string;
  cordRadius: number;
  wrap: number;
  /** Grip times wrap, dry and wet; null where teeth hold it. */
  gripExponent: { dry: number; wet: number } | null;
  arc: number;
  /** The spans before it and after it, in the way the belt travels. */
  arrives: FreeSpan;
  leaves: FreeSpan;
  /** Share of the span that leaves in the cord's mean, half of both neighbours' arcs with it. */
  weight: number;
}

/** A belt at rest: its line where it stands, and what holds it how hard. Lengths in mm, angles in radians. */
export interface StaticBelt {
  belt: Belt;
  /** The drive with the arm where the belt's length puts it. */
  drive: Drive;
  contacts: readonly Grip[];
  spans: readonly FreeSpan[];
  cordLength: number;
  /** m/s of the belt at one rev/min of the crank; 0 for a belt it does not drive. */
  beltSpeedPerRpm: number;
  kgPerMetre: number;
  /** How the level is held: a sprung arm at that place in the route, or fixed centres (null). */
  arm: number | null;
  /** Where the arm's pointer stands, degrees as its travel counts them; null without one. */
  armAngle: number | null;
  tensionN: number;
  from: TensionSource;
  /** Set where the belt's length is outside the range of its arm, and it was taken as drawn. */
  noPlace: boolean;
}

/**
 * How a belt stands at rest. A sprung arm stands where the belt's marked length puts it, as drawn without one, and its
 * spring gives the tension; `given` replaces it. On fixed centres the tension is the one given, else what the belt's
 * `staticTension` says, else its stretch round the path where it has a length, else a default. Null where no belt can
 * lie on the route.
 */
export function staticBeltOf(drive: Drive, beltId: string, given?: number): StaticBelt | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  if (!belt) return null;
  const travel = travelOf(drive, belt);
  const arm = travel?.kind === 'sprung-arm' ? travel : null;
  const placed = arm && belt.length ? placeOfArm(drive, belt, belt.length) : null;
  const fraction = arm ? (placed ?? arm.now) : null;
  const here = arm && placed !== null ? arm.at(placed) : drive;
  const { belts } = solveDrive(here);
  const solved = belts.find(({ id }) => id === beltId)!;
  const cordLength = cordLengthOf(solved);
  if (cordLength === null) return null;
  const spring = arm && given === undefined ? armTension(drive, belt, { travel: arm }, fraction!) : null;
  const { tensionN, from } = levelOf(belt, { given, spring, cordLength, arm: arm !== null });
  const roller = arm ? solved.contacts.findIndex(({ station }) => station === arm.station) : -1;
  return {
    ...figuresOf(here, belt, solved),
    cordLength,
    beltSpeedPerRpm: (solved.cordPerTurn ?? 0) / 60_000,
    kgPerMetre: massOf(belt).kgPerMetre,
    arm: roller < 0 ? null : roller,
    armAngle: arm ? arm.readingAt(fraction!) : null,
    tensionN,
    from,
    noPlace: arm !== null && Boolean(belt.length) && placed === null,
  };
}

/** The fraction of an arm's travel where a marked length puts it. */
function placeOfArm(drive: Drive, belt: Belt, length: number): number | null {
  const curve = lengthCurve(drive, belt);
  return curve && fractionFor(curve, belt, length);
}

function levelOf(
  belt: Belt,
  {
    given,
    spring,
    cordLength,
    arm,
  }: { given: number | undefined; spring: number | null; cordLength: number; arm: boolean },
): { tensionN: number; from: TensionSource } {
  if (given !== undefined) return { tensionN: given, from: 'given' };
  if (spring !== null) return { tensionN: spring, from: 'arm' };
  if (belt.staticTension !== undefined) return { tensionN: belt.staticTension, from: 'given' };
  if (!arm && belt.length) {
    const beltMm = belt.length - markedLengthMm(0, sectionOf(belt));
    return { tensionN: stretchTension(belt, cordLength, beltMm), from: 'stretch' };
  }
  return { tensionN: defaultSetting(belt), from: 'default' };
}

/** A belt's line as the sums need it, out of a path that has no gap. */
function figuresOf(drive: Drive, belt: Belt, { contacts, spans }: BeltPath) {
  const section = sectionOf(belt);
  const free = spans.map(({ from, to, length, start, end }): FreeSpan => ({
    from,
    to,
    length: length!,
    start,
    end,
    along: length! > 1e-9 ? { x: (end.x - start.x) / length!, y: (end.y - start.y) / length! } : { x: 0, y: 0 },
  }));
  const grips = contacts.map(({ pulley, station, side, cordRadius, wrapDeg, arcLength }, k): Grip => {
    const wrap = toRadians(wrapDeg!);
    const [dry, wet] = [false, true].map((isWet) => gripOf(section, findPulley(drive, pulley)!, side, isWet));
    const [arrives, leaves] = [free.at(k - 1)!, free[k]!];
    const next = contacts[(k + 1) % contacts.length]!.arcLength!;
    return {
      pulley,
      station,
      cordRadius,
      wrap,
      gripExponent: dry === null || wet === null ? null : { dry: dry! * wrap, wet: wet! * wrap },
      arc: arcLength!,
      arrives,
      leaves,
      weight: leaves.length + (arcLength! + next) / 2,
    };
  });
  return { belt, drive, contacts: grips, spans: free };
}
