import { type Belt, type Drive, findPulley, type RouteStop, stationOf } from '../drive';
import { type BeltSolution, type Point, solveBelt } from '../path';
import { type Section, sectionFor } from '../section';
import { datumOf, type Plane, planeOf, type ReadingSet } from './planes';
import { toDegrees } from '../numeric';

/** The angle of a run up to which it is good, and up to which it is to be watched, degrees. */
export interface AngleLimits {
  good: number;
  watch: number;
}
/** Within this of a limit it is on it. */
const ON_THE_LIMIT = 1e-9;

export type RunVerdict = 'good' | 'watch' | 'wrong';

/** The belt from one pulley that guides it to the next, over any rollers that do not. */
export interface Run {
  from: string;
  to: string;
  /** Places of both in the route. */
  fromAt: number;
  toAt: number;
  /** The smooth rollers between, in travel order. */
  over: readonly string[];
  /** The spans it goes along, by their place in the belt. */
  spans: readonly number[];
  /** Along the cord. */
  lengthMm: number;
  /** What it rises outward, mm a mm. */
  slope: number;
  leaveDeg: number;
  arriveDeg: number;
  /** One standard deviation of the worse of both, degrees. */
  plusMinusDeg: number;
  verdict: RunVerdict;
  /** Both pulleys were read: its angle is more than a drawing's. */
  read: boolean;
}

/**
 * A cure of a pulley, as the sums need it: out is +. What moves or squares a pulley moves its shaft, and with it every
 * sheave on that; only the belt's groove is the pulley's own.
 */
export interface Shift {
  pulley: string;
  /** Along its shaft, mm. */
  mm?: number;
  /** The belt goes so many grooves further out on it. */
  steps?: number;
  /** Its tilt is gone. */
  square?: boolean;
}

/** How a belt lies axially: planes of its pulleys, and its runs in travel order. */
export interface Alignment {
  belt: Belt;
  section: Section;
  limits: AngleLimits;
  solution: BeltSolution;
  /** By contact. */
  planes: readonly Plane[];
  /** By contact: how far further out than on the datum's pulley the belt was counted to sit, mm. */
  seatsMm: readonly number[];
  /** The groove of the datum's pulley that the belt's rearmost rib sits in, from the engine from 0. */
  datumSeat: number;
  runs: readonly Run[];
}

/** A pulley guides a belt that lies in its grooves, or between its flanges. */
export function guides(drive: Drive, { pulley, side }: Pick<RouteStop, 'pulley' | 'side'>): boolean {
  const found = findPulley(drive, pulley);
  return found !== undefined && (found.flanged === true || (side === 'drive' && found.surface !== 'smooth'));
}

/** What a belt says of its runs' angles, else its section. */
const limitsOf = ({ runAngle }: Belt, section: Section): AngleLimits => runAngle ?? section.runAngle;

/** Rib to rib, or groove to groove, mm; 0 for a belt without ribs. */
export const pitchOf = (section: Section): number => (section.kind === 'ribbed' ? section.width : 0);

/**
 * The groove of a pulley, counted from the engine from 0, in which the belt's rearmost rib sits, by the grooves counted
 * free in front of it; null where nobody counted, or there are none to count.
 */
export function seatOf(drive: Drive, belt: Pick<Belt, 'ribs'>, { pulley, front, side }: RouteStop): number | null {
  const grooves = findPulley(drive, pulley)?.grooves;
  if (front === undefined || grooves === undefined || side === 'back') return null;
  return grooves - (belt.ribs ?? grooves) - front;
}

/** The same on the datum's pulley, kept within it; its first groove where nobody counted. */
export function datumSeatOf(drive: Drive, belt: Belt): number {
  const datum = datumOf(drive, belt.id);
  const stop = belt.route.find(({ pulley }) => pulley === datum);
  if (!stop) return 0;
  const free = (findPulley(drive, stop.pulley)?.grooves ?? 0) - (belt.ribs ?? 0);
  return Math.max(0, Math.min(free, seatOf(drive, belt, stop) ?? 0));
}

/**
 * How a belt lies: the planes of its pulleys from their readings, and the angle at both ends of each run. `shifts` are
 * cures to look at. Null where no belt can lie on the route, or there is none of that id.
 */
export function alignmentOf(
  drive: Drive,
  beltId: string,
  {
    set = 'rest',
    shifts = [],
    solution = solveBelt(drive, beltId),
  }: { set?: ReadingSet; shifts?: readonly Shift[]; solution?: BeltSolution | null } = {},
): Alignment | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  if (!belt || !solution || solution.cordLength === null) return null;
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const known = new Map<string, Plane>();
  const planes = belt.route.map(({ pulley }) => {
    const plane = known.get(pulley) ?? shifted(drive, planeOf(drive, beltId, pulley, set), shifts);
    known.set(pulley, plane);
    return plane;
  });
  const pitch = pitchOf(section);
  const datumSeat = datumSeatOf(drive, belt);
  const seatsMm = belt.route.map((stop) => {
    const steps = shifts.reduce((sum, shift) => sum + (shift.pulley === stop.pulley ? (shift.steps ?? 0) : 0), 0);
    // Where nobody counted, the belt is taken to sit in the same-numbered grooves as on the datum.
    return pitch * ((seatOf(drive, belt, stop) ?? datumSeat) - datumSeat + steps);
  });
  const limits = limitsOf(belt, section);
  const alignment = { belt, section, limits, solution, planes, seatsMm, datumSeat };
  return { ...alignment, runs: runsOf(drive, alignment) };
}

function shifted(drive: Drive, plane: Plane, shifts: readonly Shift[]): Plane {
  return shifts.reduce((at, shift) => {
    if (stationOf(drive, shift.pulley)?.id !== plane.station) return at;
    const offset = at.offset + (shift.mm ?? 0);
    return shift.square ? { ...at, offset, tilt: [0, 0] as const } : { ...at, offset };
  }, plane);
}

/** The runs of a belt over planes, at the angles they then have. */
export function runsOf(drive: Drive, { belt, limits, solution, planes, seatsMm }: Omit<Alignment, 'runs'>): Run[] {
  const { route } = belt;
  const guiding = route.flatMap((stop, k) => (guides(drive, stop) ? [k] : []));
  if (guiding.length < 2) return [];
  const datum = datumOf(drive, belt.id);
  return guiding.map((fromAt, k) => {
    const toAt = guiding[(k + 1) % guiding.length]!;
    const between = placesBetween(fromAt, toAt, route.length);
    const spans = [fromAt, ...between];
    const lengthMm =
      spans.reduce((sum, at) => sum + solution.spans[at]!.length!, 0) +
      between.reduce((sum, at) => sum + solution.contacts[at]!.arcLength!, 0);
    const [first, last] = [solution.spans[fromAt]!, solution.spans[spans.at(-1)!]!];
    return {
      from: route[fromAt]!.pulley,
      to: route[toAt]!.pulley,
      fromAt,
      toAt,
      over: between.map((at) => route[at]!.pulley),
      spans,
      lengthMm,
      ...anglesOf(
        { plane: planes[fromAt]!, seatMm: seatsMm[fromAt]!, at: first.start, along: alongOf(first) },
        { plane: planes[toAt]!, seatMm: seatsMm[toAt]!, at: last.end, along: alongOf(last) },
        lengthMm,
        limits,
      ),
      read: [planes[fromAt]!, planes[toAt]!].every((plane) => plane.readings.length > 0 || plane.pulley === datum),
    };
  });
}

function placesBetween(from: number, to: number, count: number): number[] {
  const between: number[] = [];
  for (let at = (from + 1) % count; at !== to; at = (at + 1) % count) between.push(at);
  return between;
}

export function alongOf({ start, end }: { start: Point; end: Point }): Point {
  const length = Math.hypot(end.x - start.x, end.y - start.y);
  return length > 1e-9 ? { x: (end.x - start.x) / length, y: (end.y - start.y) / length } : { x: 0, y: 0 };
}

/** One end of a run: the pulley's plane, where the belt touches it, and which way it travels there. */
interface RunEnd {
  plane: Plane;
  seatMm: number;
  at: Point;
  along: Point;
}

/** Where a plane has its grooves at a place, mm out from the crank's. */
export function heightAt({ offset, tilt, centre }: Plane, { x, y }: Point): number {
  return offset + tilt[0] * (x - centre.x) + tilt[1] * (y - centre.y);
}

/** What a plane rises outward along a direction, mm a mm. */
export const slopeAlong = ({ tilt }: Plane, { x, y }: Point): number => tilt[0] * x + tilt[1] * y;

function anglesOf(leave: RunEnd, arrive: RunEnd, length: number, limits: AngleLimits) {
  // Two pulleys that touch have no run between them; a hair of length keeps its figures finite.
  const span = Math.max(length, 1e-3);
  const slope =
    (heightAt(arrive.plane, arrive.at) + arrive.seatMm - heightAt(leave.plane, leave.at) - leave.seatMm) / span;
  const angle = ({ plane, along }: RunEnd) => toDegrees(Math.atan(slope) - Math.atan(slopeAlong(plane, along)));
  const [leaveDeg, arriveDeg] = [angle(leave), angle(arrive)];
  const worst = Math.max(Math.abs(leaveDeg), Math.abs(arriveDeg));
  return {
    slope,
    leaveDeg,
    arriveDeg,
    plusMinusDeg: doubtOf(leave, arrive, span, Math.abs(leaveDeg) >= Math.abs(arriveDeg) ? leave : arrive),
    verdict: verdictOf(worst, limits),
  };
}

function verdictOf(degrees: number, { good, watch }: AngleLimits): RunVerdict {
  if (degrees <= good + ON_THE_LIMIT) return 'good';
  return degrees <= watch + ON_THE_LIMIT ? 'watch' : 'wrong';
}

/** How a rise over a length goes with offset and tilts of the plane at one of its ends; `by` is ±1 over the length. */
export function riseGradient(centre: Point, touch: Point, by: number): number[] {
  return [by, by * (touch.x - centre.x), by * (touch.y - centre.y)];
}

/** One standard deviation of the angle at one end of a run, degrees: the planes' covariances through its slopes. */
function doubtOf(leave: RunEnd, arrive: RunEnd, length: number, end: RunEnd): number {
  const own = [0, end.along.x, end.along.y];
  const parts: [RunEnd, number[]][] = [
    [leave, riseGradient(leave.plane.centre, leave.at, -1 / length)],
    [arrive, riseGradient(arrive.plane.centre, arrive.at, 1 / length)],
  ];
  for (const [at, slopes] of parts) if (at === end) own.forEach((part, k) => (slopes[k]! -= part));
  const together =
    leave.plane === arrive.plane ? [[leave, parts[0]![1].map((part, k) => part + parts[1]![1][k]!)]] : parts;
  const variance = (together as [RunEnd, number[]][]).reduce(
    (sum, [{ plane }, slopes]) => sum + quadratic(plane.covariance, slopes),
    0,
  );
  return toDegrees(Math.sqrt(Math.max(0, variance)));
}

/** vᵀCv of a 3 by 3 matrix, row by row. */
export function quadratic(covariance: readonly number[], v: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < 3; i += 1) for (let j = 0; j < 3; j += 1) sum += v[i]! * v[j]! * covariance[3 * i + j]!;
  return sum;
}

/** How steep a tilt is along its own direction, degrees. */
export const steepnessDeg = ([x, y]: readonly [number, number]): number => toDegrees(Math.atan(Math.hypot(x, y)));

/** The worse angle of a run, degrees. */
export const worseOf = ({ leaveDeg, arriveDeg }: Pick<Run, 'leaveDeg' | 'arriveDeg'>): number =>
  Math.max(Math.abs(leaveDeg), Math.abs(arriveDeg));

/** The runs, the worst angle first. */
export const worstFirst = (runs: readonly Run[]): Run[] => [...runs].sort((a, b) => worseOf(b) - worseOf(a));

/** The worst angle of all runs, degrees; 0 where there are none. */
export const worstDeg = (runs: readonly Run[]): number => runs.reduce((worst, run) => Math.max(worst, worseOf(run)), 0);
