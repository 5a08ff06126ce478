import type { Point } from '../path';
import type { Grip, StaticBelt } from './static-belt';

/** Told as the margin of a pulley whose tight side has nothing left: no number says how far it is from holding. */
const NO_GRIP = -10;

/** One pulley of a belt that runs. */
export interface PulleyRunning {
  contact: Grip;
  /** What the cord carries before it and after it, N; m·v² included. */
  arrivesN: number;
  leavesN: number;
  /** What it takes of this belt, N·m; below zero where it turns the belt. */
  torqueNm: number;
  /** How much more it could take before it slips, as a fraction; null where nothing can slip. */
  margin: number | null;
  /** The pull of its two spans on it, N. */
  hubLoad: Point;
}

/** What one belt carries at one speed. */
export interface BeltRunning {
  /** m/s. */
  beltSpeed: number;
  /** N that centrifugal force takes of the tension: m·v². */
  centrifugalN: number;
  /** In the order of the route. */
  pulleys: readonly PulleyRunning[];
}

/** A pulley with how far the tensions before it and after it lie above that of the last span, N. */
export interface Rise {
  contact: Grip;
  torqueNm: number;
  arrives: number;
  leaves: number;
}

/**
 * The tensions of a belt that runs. In travel order a pulley that takes the torque M raises the tension after it by
 * M/r. A sprung arm holds the effective tension T − m·v² at its roller; on fixed centres the cord's mean stays what it
 * was at rest. `torques` in N·m by pulley; their pulls sum to nothing. `tensionN`, where it is given, in place of the
 * belt's own at rest.
 */
export function runBelt(
  standing: StaticBelt,
  torques: readonly number[],
  { rpm, wet = false, tensionN = standing.tensionN }: { rpm: number; wet?: boolean; tensionN?: number },
): BeltRunning {
  const beltSpeed = standing.beltSpeedPerRpm * rpm;
  const centrifugalN = standing.kgPerMetre * beltSpeed ** 2;
  const rises = risesOf(standing, torques);
  // The effective tension of the last span.
  const level = tensionN - offsetOf(standing, rises, centrifugalN);
  return {
    beltSpeed,
    centrifugalN,
    pulleys: rises.map(({ contact, torqueNm, arrives, leaves }) => ({
      contact,
      arrivesN: level + arrives + centrifugalN,
      leavesN: level + leaves + centrifugalN,
      torqueNm,
      margin: marginAt(contact, torqueNm, level + arrives, level + leaves, wet),
      hubLoad: hubLoadOf(contact, level + arrives, level + leaves),
    })),
  };
}

/** How far the tension of each span lies above that of the last one, by the pulleys between, N. */
export function risesOf({ contacts }: StaticBelt, torques: readonly number[]): Rise[] {
  let rise = 0;
  const rises = contacts.map((contact, k): Rise => {
    const torqueNm = torques[k] ?? 0;
    const arrives = rise;
    rise += (torqueNm * 1000) / contact.cordRadius;
    return { contact, torqueNm, arrives, leaves: rise };
  });
  // The first pulley's span is the last one's: what all torques sum to, which is nothing but for rounding.
  return rises.map((contact, k) => (k === 0 ? { ...contact, arrives: rise } : contact));
}

/** How far the tension at rest lies above the last span's effective tension, N: both grow one for one. */
export function offsetOf({ arm, cordLength }: StaticBelt, rises: readonly Rise[], centrifugalN: number): number {
  const roller = arm === null ? undefined : rises[arm];
  if (roller) return (roller.leaves + roller.arrives) / 2;
  return rises.reduce((sum, { contact, leaves }) => sum + leaves * contact.weight, 0) / cordLength + centrifugalN;
}

/**
 * What is left before a pulley slips, by the capstan equation (Euler, Eytelwein) on the effective tensions: slack ·
 * e^(grip · wrap) / tight − 1.
 */
function marginAt(
  { gripExponent }: Grip,
  torqueNm: number,
  arrives: number,
  leaves: number,
  wet: boolean,
): number | null {
  if (torqueNm === 0 || gripExponent === null) return null;
  const [slack, tight] = [Math.min(arrives, leaves), Math.max(arrives, leaves)];
  if (tight <= 0) return NO_GRIP;
  return Math.max(NO_GRIP, (slack * Math.exp(wet ? gripExponent.wet : gripExponent.dry)) / tight - 1);
}

/** The two spans' pull on a pulley's shaft, N. */
const hubLoadOf = ({ arrives, leaves }: Grip, back: number, on: number): Point => ({
  x: on * leaves.along.x - back * arrives.along.x,
  y: on * leaves.along.y - back * arrives.along.y,
});
