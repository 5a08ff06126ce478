import { lengthCurve, fractionFor } from '../adjuster';
import type { Drive } from '../drive';
import type { Figure } from '../numeric';
import { ARM_FRICTION, fractionOfPointer, pointerAsSwung, pointerTension } from './readings';

export const ARM_VERDICTS = ['good', 'weak', 'strong', 'binding', 'stuck', 'wrong-length', 'cannot-say'] as const;
export type ArmVerdict = (typeof ARM_VERDICTS)[number];

/** What a sprung arm is found to be. */
export interface ArmHealth {
  verdict: ArmVerdict;
  /** Measured tension over what its spring should hold at that pointer, with one standard deviation. */
  left: Figure | null;
  /** How far the two turnings of the engine lie apart, as a fraction of their mean; null without both. */
  split: number | null;
  /** Pointer read less where the belt's length would put it, degrees; null where the length is not known. */
  offDegrees: number | null;
  /** Whether the pointer stands between its marks; null without marks. */
  inWindow: boolean | null;
}

/** A spring with less of its force than this is weak. A default. */
const WEAK = 0.8;
/** Turned both ways, a sound arm's tensions lie no further apart than friction twice over, and half as much again. */
const BINDS = 3 * ARM_FRICTION;
/** A pointer further than this from where the belt's length puts it is not where it should be, degrees. A default. */
const OFF_DEGREES = 6;

/**
 * What the arm is, from its pointer and tensions measured on its belt (after turning the engine by hand forward, back,
 * or both). Weak, stuck and binding are told from a belt of the wrong length by where the pointer stands.
 */
export function armHealth(
  drive: Drive,
  beltId: string,
  pointerDegrees: number | null,
  measured: { forward?: Figure; back?: Figure; plain?: Figure },
): ArmHealth {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const readings = [measured.forward, measured.back, measured.plain].filter((reading) => reading !== undefined);
  const none: ArmHealth = { verdict: 'cannot-say', left: null, split: null, offDegrees: null, inWindow: null };
  if (!belt || pointerDegrees === null) return none;
  const curve = lengthCurve(drive, belt);
  const should = pointerTension(drive, belt, pointerDegrees);
  if (!curve || should === null || should <= 0) return none;
  const { travel } = curve;
  const placed = belt.length ? fractionFor(curve, belt, belt.length) : null;
  const offDegrees = placed === null ? null : pointerAsSwung(travel, pointerDegrees) - travel.readingAt(placed);
  const fraction = fractionOfPointer(travel, pointerDegrees);
  const inWindow = travel.marks ? fraction >= travel.marks.short - 1e-9 && fraction <= travel.marks.long + 1e-9 : null;
  const both = measured.forward && measured.back ? [measured.forward, measured.back] : null;
  const mean = readings.length === 0 ? null : readings.reduce((sum, { at }) => sum + at, 0) / readings.length;
  const split = both && mean ? Math.abs(both[0]!.at - both[1]!.at) / mean : null;
  const left = mean === null ? null : leftOf(readings, mean, should, both !== null);
  return { verdict: verdictOf({ left, split, offDegrees, inWindow }), left, split, offDegrees, inWindow };
}

function leftOf(readings: readonly Figure[], mean: number, should: number, both: boolean): Figure {
  const sigma = Math.hypot(...readings.map((reading) => reading.sigma)) / readings.length;
  // Turned one way, friction is all in; both ways it cancels, and what is left of it is how unlike the two are.
  const friction = (both ? ARM_FRICTION / 3 : ARM_FRICTION) * mean;
  return { at: mean / should, sigma: Math.hypot(sigma, friction) / should };
}

function verdictOf({ left, split, offDegrees, inWindow }: Omit<ArmHealth, 'verdict'>): ArmVerdict {
  if (left === null) return inWindow === false ? 'wrong-length' : 'cannot-say';
  if (split !== null && split > BINDS) return 'binding';
  const sure = 1.5 * left.sigma;
  const off = offDegrees !== null && Math.abs(offDegrees) > OFF_DEGREES;
  // A stuck arm stands where it should not, and its belt's pull has nothing to do with its spring.
  if (off && Math.abs(left.at - 1) > sure + 0.1) return 'stuck';
  if (off || inWindow === false) return 'wrong-length';
  if (left.at + sure < 1 && left.at < WEAK) return 'weak';
  return left.at - sure > 1 + ARM_FRICTION ? 'strong' : 'good';
}
