import type { Point } from '../path';
import type { Standing } from './standing';

/** Told as the margin of a pulley whose tight side has nothing left: no number says how far it is from holding. */
const NO_GRIP = -10;

/** What one belt bears at one speed. */
export interface BeltRunning {
  /** m/s. */
  beltSpeed: number;
  /** N that centrifugal force takes of the tension: m·v². */
  centrifugalN: number;
  /** By span as in the route: what the cord bears, N; m·v² included. */
  tensionN: number[];
  /** By pulley: what it takes of this belt, N·m. */
  torqueNm: number[];
  /** By pulley: how much more it could take before it slips, as a fraction; null where nothing can slip. */
  margin: (number | null)[];
  /** By pulley: the pull of its two spans on it, N. */
  hub: Point[];
}

/**
 * The tensions of a belt that runs. In travel order a pulley that takes the torque M raises the tension after it by
 * M/r. A sprung arm holds the effective tension T − m·v² at its roller; on fixed centres the cord's mean stays what it
 * was at rest. `torques` in N·m by pulley; their pulls sum to nothing. `tensionN`, where it is given, in place of the
 * belt's own at rest.
 */
export function runBelt(
  standing: Standing,
  torques: readonly number[],
  { rpm, wet = false, tensionN = standing.tensionN }: { rpm: number; wet?: boolean; tensionN?: number },
): BeltRunning {
  const beltSpeed = standing.pace * rpm;
  const centrifugalN = standing.kgPerMetre * beltSpeed ** 2;
  const above = risesOf(standing, torques);
  const level = levelFor(standing, above, centrifugalN, tensionN);
  const effective = above.map((rise) => level + rise);
  return {
    beltSpeed,
    centrifugalN,
    tensionN: effective.map((one) => one + centrifugalN),
    torqueNm: [...torques],
    margin: standing.contacts.map((_, k) => marginAt(standing, k, torques[k]!, effective, wet)),
    hub: standing.contacts.map((_, k) => pullOn(standing, k, effective)),
  };
}

/** How far the tension of each span lies above that of the last one, N. */
export function risesOf({ contacts }: Standing, torques: readonly number[]): number[] {
  let rise = 0;
  return contacts.map(({ cordRadius }, k) => {
    rise += (torques[k]! * 1000) / cordRadius;
    return rise;
  });
}

/** The effective tension of the last span at a tension at rest. */
function levelFor(standing: Standing, above: readonly number[], centrifugalN: number, tensionN: number): number {
  return tensionN - offsetOf(standing, above, centrifugalN);
}

/** How far the tension at rest lies above the last span's effective tension, N: both grow one for one. */
export function offsetOf(
  { arm, weights, cordLength }: Standing,
  above: readonly number[],
  centrifugalN: number,
): number {
  if (arm !== null) return (above[arm]! + before(above, arm)) / 2;
  return above.reduce((sum, rise, k) => sum + rise * weights[k]!, 0) / cordLength + centrifugalN;
}

/** Of the span that arrives at a pulley. */
export const before = (bySpan: readonly number[], k: number): number =>
  bySpan[(k + bySpan.length - 1) % bySpan.length]!;

/**
 * What is left before a pulley slips, by the capstan equation (Euler, Eytelwein) on the effective tensions: slack ·
 * e^(grip · wrap) / tight − 1.
 */
function marginAt(
  { contacts }: Standing,
  k: number,
  torque: number,
  effective: readonly number[],
  wet: boolean,
): number | null {
  const { hold } = contacts[k]!;
  if (torque === 0 || hold === null) return null;
  const [arrives, leaves] = [before(effective, k), effective[k]!];
  const [slack, tight] = [Math.min(arrives, leaves), Math.max(arrives, leaves)];
  if (tight <= 0) return NO_GRIP;
  return Math.max(NO_GRIP, (slack * Math.exp(wet ? hold.wet : hold.dry)) / tight - 1);
}

/** The two spans' pull on a pulley's shaft, N. */
function pullOn({ spans }: Standing, k: number, effective: readonly number[]): Point {
  const count = spans.length;
  const [arriving, leaving] = [spans[(k + count - 1) % count]!, spans[k]!];
  const [back, on] = [before(effective, k), effective[k]!];
  return {
    x: on * leaving.along.x - back * arriving.along.x,
    y: on * leaving.along.y - back * arriving.along.y,
  };
}
