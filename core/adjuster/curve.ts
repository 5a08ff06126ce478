import type { Belt, Drive } from '../drive';
import { type BeltPath, pathOf } from '../path';
import { markedLengthMm, sectionFor } from '../section';
import { reversed, travelOf } from './travel';
import { adjusterKind } from './kinds';
import { type Travel } from './kinds/kind';

/** Path length against adjuster position; marked lengths in mm, null where no line can be drawn. */
export interface LengthCurve {
  travel: Travel;
  /** Marked length at fractions 0, 1/n … 1; null past `clear`, where no belt is held. */
  lengths: (number | null)[];
  /**
   * Share of the longest path, where it lies inside the travel: past it, tightening slackens. Null where it lies at the
   * end.
   */
  peak: number | null;
  /**
   * Share at which a tensioner's roller, on its way to tighten, swings past the belt and lets go of it. Null where it
   * never does.
   */
  clear: number | null;
  /** Where the working branch ends: at the longest path, where the roller lets go, or at the end of the travel. */
  end: number;
  /** How much longer the path is than drawn at a fraction of the travel, mm, by what was measured; `lengths` has it. */
  longer?: LongerThanDrawn;
}

/** How much longer a path is than drawn at a fraction of the travel, mm. */
export type LongerThanDrawn = (fraction: number) => number;

/** Points of the curve that is searched for a belt's position. */
const POINTS = 64;

/**
 * Faults that leave no path at all. A tensioner that has swung clear of the belt is one: the belt would have to loop
 * right round it.
 */
const NO_PATH: ReadonlySet<string> = new Set(['not-closed', 'crosses-itself']);

/**
 * Cord length as drawn, also where the belt would rub on something; null where a span has no line, or the line does not
 * go round once.
 */
export function cordLengthOf(solved: BeltPath): number | null {
  if (solved.findings.some(({ code }) => NO_PATH.has(code))) return null;
  let sum = 0;
  for (const { arcLength } of solved.contacts) {
    if (arcLength === null) return null;
    sum += arcLength;
  }
  for (const { length } of solved.spans) {
    if (length === null) return null;
    sum += length;
  }
  return solved.contacts.length > 1 ? sum : null;
}

/**
 * The marked length a belt would need on this drive as it stands, whatever it rubs on. Where a tensioner's roller has
 * swung clear of its back, the belt lies as if the roller were not there.
 */
export function pathLength(drive: Drive, belt: Belt): number | null {
  return pathAt(drive, belt).length;
}

/**
 * How much a path grows with a figure, mm for each unit of it, taken over `step` to either side; to one side where the
 * roller lets go of the belt on the other.
 */
export function slopeOf(withMore: (by: number) => Drive, belt: Belt, step: number): number {
  const [less, here, more] = [-step, 0, step].map((by) => pathAt(withMore(by), belt)) as [Path, Path, Path];
  const like = ({ length, held }: Path) => length !== null && held === here.held;
  if (like(more) && like(less)) return (more.length! - less.length!) / (2 * step);
  if (here.length === null) return 0;
  if (like(more)) return (more.length! - here.length) / step;
  return like(less) ? (here.length - less.length!) / step : 0;
}

interface Path {
  length: number | null;
  held: boolean;
}

/** The same, and whether the belt lies on every pulley of its route there. */
function pathAt(drive: Drive, belt: Belt): Path {
  const held = cordLengthOf(pathOf(drive, belt.id)!);
  const cord = held ?? cordWithoutRoller(drive, belt);
  return {
    length: cord === null ? null : markedLengthMm(cord, sectionFor(belt.section, belt.sectionOverrides)!),
    held: held !== null,
  };
}

function cordWithoutRoller(drive: Drive, belt: Belt): number | null {
  const rollers = new Set(
    drive.stations.flatMap(({ adjuster, pulleys }) => (adjuster ? pulleys.map(({ id }) => id) : [])),
  );
  const route = belt.route.filter(({ pulley, side }) => side !== 'back' || !rollers.has(pulley));
  if (route.length === belt.route.length || route.length < 2) return null;
  return cordLengthOf(
    pathOf(
      {
        ...drive,
        belts: drive.belts.map((otherBelt) => (otherBelt.id === belt.id ? { ...otherBelt, route } : otherBelt)),
      },
      belt.id,
    )!,
  );
}

/**
 * The adjuster's travel from its slack end. A slide or a turnbuckle says nothing of which end that is: it is the one
 * with the shorter path. Null for a belt without an adjuster.
 */
export function travelFromSlack(drive: Drive, belt: Belt): Travel | null {
  const travel = travelOf(drive, belt);
  if (!travel || adjusterKind(travel.kind).slackEndGiven) return travel;
  const [first, last] = [pathLength(travel.at(0), belt), pathLength(travel.at(1), belt)];
  return first !== null && last !== null && first > last ? reversed(travel) : travel;
}

/** The curve of a belt's adjuster, from its slack end. Null for a belt without one. */
export function lengthCurve(drive: Drive, belt: Belt, points = POINTS): LengthCurve | null {
  const travel = travelFromSlack(drive, belt);
  if (!travel) return null;
  const paths = Array.from({ length: points + 1 }, (_, k) => pathAt(travel.at(k / points), belt));
  const lost = paths.findIndex(({ held }, k) => !held && k > 0 && paths[k - 1]!.held);
  const clear = lost < 0 ? null : letGoNear(travel, belt, (lost - 1) / points, lost / points);
  const lengths = paths.map(({ length }, k) => (clear !== null && k / points > clear ? null : length));
  const known = lengths.flatMap((length, k) => (length === null ? [] : [{ length, k }]));
  const longest = known.reduce<{ length: number; k: number } | null>(
    (found, next) => (found === null || next.length > found.length ? next : found),
    null,
  );
  // The last place that counts: the end of the travel, or where the belt is let go.
  const last = clear === null ? lengths[points]! : pathLength(travel.at(clear), belt);
  const inside = longest !== null && longest.k < points && longest.length - (last ?? -Infinity) > 0.05;
  const peak = inside ? peakNear(travel, belt, longest.k, points, clear ?? 1) : null;
  return { travel, lengths, peak, clear, end: peak ?? clear ?? 1 };
}

/** The same curve where the path is so much longer than drawn. */
export function measuredCurve(drawn: LengthCurve, longer: LongerThanDrawn): LengthCurve {
  const points = drawn.lengths.length - 1;
  const lengths = drawn.lengths.map((mm, k) => (mm === null ? null : mm + longer(k / points)));
  return { ...drawn, lengths, longer };
}

/** The marked length that a belt needs at a fraction of the travel, mm; null where no line can be drawn. */
export function lengthAt({ travel, longer }: LengthCurve, belt: Belt, fraction: number): number | null {
  const drawn = pathLength(travel.at(fraction), belt);
  return drawn === null || !longer ? drawn : drawn + longer(fraction);
}

/** More than this between a belt held and one let go, and the roller does not leave it gently from its face; mm. */
const JUMP = 0.05;

/**
 * The last fraction, between one where the roller holds the belt and one where it does not, at which it does; null
 * where it leaves the belt as gently as it met it.
 */
function letGoNear(travel: Travel, belt: Belt, holds: number, lost: number): number | null {
  let [low, high] = [holds, lost];
  for (let round = 0; round < 34; round += 1) {
    const middle = (low + high) / 2;
    if (pathAt(travel.at(middle), belt).held) low = middle;
    else high = middle;
  }
  const [held, free] = [pathLength(travel.at(low), belt), pathLength(travel.at(high), belt)];
  return held !== null && free !== null && Math.abs(held - free) < JUMP ? null : low;
}

/** Golden section about the longest sample. */
function peakNear(travel: Travel, belt: Belt, k: number, points: number, last: number): number {
  let [low, high] = [Math.max(0, (k - 1) / points), Math.min(last, (k + 1) / points)];
  const part = (Math.sqrt(5) - 1) / 2;
  for (let round = 0; round < 40; round += 1) {
    const [a, b] = [high - part * (high - low), low + part * (high - low)];
    if ((pathLength(travel.at(a), belt) ?? -Infinity) > (pathLength(travel.at(b), belt) ?? -Infinity)) high = b;
    else low = a;
  }
  return (low + high) / 2;
}

/**
 * The fraction at which the path is `length` on the working branch, from the slack end to the longest path; null where
 * it never is.
 */
export function fractionFor(curve: LengthCurve, belt: Belt, length: number): number | null {
  const { lengths, end } = curve;
  const points = lengths.length - 1;
  const at = (fraction: number) => lengthAt(curve, belt, fraction);
  const fractions = [...lengths.map((_, k) => k / points).filter((fraction) => fraction < end), end];
  let before: { fraction: number; length: number } | null = null;
  for (const fraction of fractions) {
    const here = fraction === end ? at(end) : lengths[Math.round(fraction * points)]!;
    if (here === null) {
      before = null;
      continue;
    }
    if (Math.abs(here - length) < 1e-9) return fraction;
    if (before && (before.length - length) * (here - length) < 0) return refined(at, before.fraction, fraction, length);
    before = { fraction, length: here };
  }
  return null;
}

function refined(at: (fraction: number) => number | null, from: number, to: number, length: number): number {
  let [low, high] = [from, to];
  const rising = (at(high) ?? 0) > (at(low) ?? 0);
  for (let round = 0; round < 34; round += 1) {
    const middle = (low + high) / 2;
    if ((at(middle) ?? 0) < length === rising) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
