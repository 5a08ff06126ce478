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

/** What the tension at rest follows from: see `standingOf`. */
export type TensionSource = 'arm' | 'given' | 'stretch' | 'default';

/** One pulley of a belt, as the sums on its tension need it. */
export interface Grip {
  pulley: string;
  station: string;
  cordRadius: number;
  wrap: number;
  /** Grip times wrap, dry and wet; null where teeth hold it. */
  hold: { dry: number; wet: number } | null;
  arc: number;
}

/** A belt at rest: its line where it stands, and what holds it how hard. Lengths in mm, angles in radians. */
export interface Standing {
  belt: Belt;
  /** The drive with the arm where the belt's length puts it. */
  drive: Drive;
  contacts: readonly Grip[];
  spans: readonly { from: string; to: string; length: number; along: Point; start: Point; end: Point }[];
  cordLength: number;
  /** m/s of the belt at one rev/min of the crank; 0 for a belt it does not drive. */
  pace: number;
  kgPerMetre: number;
  /** How the level is held: a sprung arm at that place in the route, or fixed centres (null). */
  arm: number | null;
  /** Where the arm's pointer stands, degrees as its travel counts them; null without one. */
  armAngle: number | null;
  tensionN: number;
  from: TensionSource;
  /** Set where the belt's length finds no place on its arm, and it was taken as drawn. */
  noPlace: boolean;
  /** Share of each span in the cord's mean, half of both neighbours' arcs with it. */
  weights: readonly number[];
}

/**
 * How a belt stands at rest. A sprung arm stands where the belt's marked length puts it, as drawn without one, and its
 * spring gives the tension; `given` replaces it. On fixed centres the tension is the one given, else what the belt's
 * `staticTension` says, else its stretch round the path where it has a length, else a default. Null where no belt can
 * lie on the route.
 */
export function standingOf(drive: Drive, beltId: string, given?: number): Standing | null {
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
    pace: (solved.cordPerTurn ?? 0) / 60_000,
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
  const grips = contacts.map(({ pulley, station, side, cordRadius, wrapDeg, arcLength }): Grip => {
    const wrap = (wrapDeg! * Math.PI) / 180;
    const [dry, wet] = [false, true].map((one) => gripOf(section, findPulley(drive, pulley)!, side, one));
    return {
      pulley,
      station,
      cordRadius,
      wrap,
      hold: dry === null || wet === null ? null : { dry: dry! * wrap, wet: wet! * wrap },
      arc: arcLength!,
    };
  });
  const free = spans.map(({ from, to, length, start, end }) => ({
    from,
    to,
    length: length!,
    start,
    end,
    along: length! > 1e-9 ? { x: (end.x - start.x) / length!, y: (end.y - start.y) / length! } : { x: 0, y: 0 },
  }));
  const count = grips.length;
  return {
    belt,
    drive,
    contacts: grips,
    spans: free,
    weights: free.map(({ length }, k) => length + (grips[k]!.arc + grips[(k + 1) % count]!.arc) / 2),
  };
}
