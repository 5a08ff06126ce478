import { changePulley, type Shims } from '../../drive';
import { halfGrooveAngle } from '../../section';
import type { AdjusterKind } from './kind';

const halves = (station: string) => `the bolts that hold the halves of ${station} together`;
const total = (thicknesses: readonly number[]) => thicknesses.reduce((sum, thickness) => sum + thickness, 0);

/**
 * A split V sheave: taking out a shim of thickness t lets the belt ride t / (2·tan(half groove angle)) higher between
 * the halves, whose rim stays as large as it is.
 */
export const SHIMS: AdjusterKind<Shims> = {
  label: 'Split sheave, shims',
  caution: null,
  start: () => ({ kind: 'shims', shims: [0.8, 0.8, 0.8] }),
  travel: (drive, station, adjuster, belt) => {
    const between = total(adjuster.shims);
    const spare = typeof adjuster.spare === 'number' ? adjuster.spare : total(adjuster.spare ?? []);
    const sheaves = station.pulleys.filter(
      ({ id, surface }) => surface === 'vee' && belt.route.some(({ pulley }) => pulley === id),
    );
    if (between + spare === 0 || sheaves.length === 0) return null;
    const at = (fraction: number) => {
      const removed = (between + spare) * fraction - spare;
      return sheaves.reduce(
        (split, sheave) =>
          changePulley(split, sheave.id, {
            ride: (sheave.ride ?? 0) + removed / (2 * Math.tan(halfGrooveAngle(sheave))),
          }),
        drive,
      );
    };
    return {
      station: station.id,
      kind: adjuster.kind,
      reads: 'travel',
      at,
      readingAt: (fraction) => (between + spare) * fraction,
      marks: null,
      now: spare / (between + spare),
    };
  },
  slackEndGiven: true,
  moves: 'belt',
  asked: { thicknesses: [['shims', (n) => `Shim ${n} between the halves`, 'One more shim']] },
  setting: {
    pitches: () => null,
    withPitches: (adjuster) => adjuster,
    barred: false,
    inTurns: false,
    mmOf: 'shims out',
    shims: ({ shims }) => shims,
  },
  steps: { way: 'halves', boltsOff: halves, boltsOn: halves, moves: null },
};
