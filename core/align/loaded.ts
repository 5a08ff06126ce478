import { type Drive, type Role, stationOf } from '../drive';
import { type Plane, planeOf, readingsOf } from '../planes';
import { toDegrees } from '../numeric';

/** What gives way under load. */
export type Suspect = 'bracket' | 'bearing' | 'hub-ring';

/** How a pulley stands with the engine pulling, against how it stands at rest. */
export interface LoadedMove {
  pulley: string;
  movedMm: number;
  plusMinusMm: number;
  /** How much its tilt changed, and the ± of that. */
  tiltDeg: number;
  tiltPlusMinusDeg: number;
  /** It moved by more than its readings' doubt: twice their ±. */
  moved: boolean;
  /** What to look at, the likeliest first; empty where it stood still. */
  suspects: readonly Suspect[];
}

/** Hubs with a ring of rubber in them. */
const RUBBER: readonly Role[] = ['crankshaft', 'ac-compressor', 'alternator'];

/**
 * What moved when the engine pulled: for each pulley that was read both at rest and under load. A tilt with the offset
 * speaks of a bracket; a tilt about a centre that stays speaks of a bearing; an offset without a tilt of the ring of
 * rubber in a hub, where it has one.
 */
export function movedUnderLoad(drive: Drive, beltId: string): LoadedMove[] {
  const route = drive.belts.find(({ id }) => id === beltId)?.route ?? [];
  return [...new Set(route.map(({ pulley }) => pulley))]
    .filter((pulley) => (['rest', 'load'] as const).every((set) => readingsOf(drive, pulley, set).length > 0))
    .map((pulley) => {
      const [rest, load] = [planeOf(drive, beltId, pulley), planeOf(drive, beltId, pulley, 'load')];
      const movedMm = load.offset - rest.offset;
      const plusMinusMm = Math.sqrt(rest.covariance[0]! + load.covariance[0]!);
      const tilts = [load.tilt[0] - rest.tilt[0], load.tilt[1] - rest.tilt[1]] as const;
      const tilt = Math.hypot(...tilts);
      const tiltSigma = Math.sqrt(tiltVariance(rest, tilts) + tiltVariance(load, tilts));
      const [shifts, tips] = [Math.abs(movedMm) > 2 * plusMinusMm, tilt > 2 * tiltSigma && tilt > 1e-6];
      return {
        pulley,
        movedMm,
        plusMinusMm,
        tiltDeg: toDegrees(Math.atan(tilt)),
        tiltPlusMinusDeg: toDegrees(tiltSigma),
        moved: shifts || tips,
        suspects: suspectsOf(stationOf(drive, pulley)!.role, shifts, tips),
      };
    });
}

function tiltVariance({ covariance }: Plane, [x, y]: readonly [number, number]): number {
  const length = Math.hypot(x, y);
  const [u, v] = length > 1e-12 ? [x / length, y / length] : [Math.SQRT1_2, Math.SQRT1_2];
  return u * u * covariance[4]! + 2 * u * v * covariance[5]! + v * v * covariance[8]!;
}

function suspectsOf(role: Role, shifts: boolean, tips: boolean): Suspect[] {
  if (shifts && tips) return ['bracket', 'bearing'];
  if (tips) return ['bearing', 'bracket'];
  if (!shifts) return [];
  return RUBBER.includes(role) ? ['hub-ring', 'bracket'] : ['bracket', 'bearing'];
}
