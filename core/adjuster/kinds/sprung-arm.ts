import { moveStation, type SprungArm } from '../../drive';
import { besideAngle, RADIANS, toRadians } from '../../numeric';
import { type AdjusterKind, lerp, pivotBelow } from './kind';

/** A sprung arm's angles, all counted the way the arm swings, degrees. */
export function armAngles({ freeAngle: free, fullAngle, shortMark, longMark }: SprungArm): {
  free: number;
  full: number;
  short: number | null;
  long: number | null;
} {
  const full = besideAngle(fullAngle, free);
  const mark = (angle: number | undefined) => (angle === undefined ? null : besideAngle(angle, (free + full) / 2));
  return { free, full, short: mark(shortMark), long: mark(longMark) };
}

/** An arm that a spring holds against the belt. */
export const SPRUNG_ARM: AdjusterKind<SprungArm> = {
  label: 'Sprung arm',
  caution: 'A sprung arm snaps back. Keep fingers out, and let it return slowly.',
  start: (shaft) => ({
    kind: 'sprung-arm',
    pivot: pivotBelow(shaft),
    armLength: 80,
    freeAngle: 60,
    fullAngle: 120,
    shortMark: 105,
    longMark: 75,
    springTorqueAtFree: 14,
    springRate: 0.2,
  }),
  travel: (drive, station, adjuster) => {
    const { free, full, short, long } = armAngles(adjuster);
    if (free === full) return null;
    const { pivot, armLength: length } = adjuster;
    const angleAt = (fraction: number) => lerp(full, free, fraction);
    const fractionOf = (angle: number) => (angle - full) / (free - full);
    const standing = besideAngle(Math.atan2(station.y - pivot.y, station.x - pivot.x) / RADIANS, (free + full) / 2);
    return {
      station: station.id,
      kind: adjuster.kind,
      reads: 'armAngle',
      at: (fraction) =>
        moveStation(
          drive,
          station.id,
          pivot.x + length * Math.cos(toRadians(angleAt(fraction))),
          pivot.y + length * Math.sin(toRadians(angleAt(fraction))),
        ),
      readingAt: angleAt,
      marks: short === null || long === null ? null : { short: fractionOf(short), long: fractionOf(long) },
      now: fractionOf(standing),
    };
  },
  slackEndGiven: true,
  moves: 'shaft',
  asked: {
    places: [['pivot', 'Pivot']],
    lengths: [['armLength', 'Arm length']],
    angles: [
      ['fullAngle', 'Angle pulled fully back'],
      ['shortMark', 'Angle at short mark'],
      ['longMark', 'Angle at long mark'],
      ['freeAngle', 'Free angle, no belt'],
    ],
    figures: [
      ['springTorqueAtFree', 'Spring torque at free angle', 'N·m'],
      ['springRate', 'Spring rate', 'N·m per degree'],
    ],
    fromThreePlaces: true,
  },
  setting: null,
  steps: { way: 'arm', boltsOff: pivotThenLock, boltsOn: lockThenPivot, moves: null },
};

/** The bolts of what swings about a pivot, in the order of slackening. */
export function pivotThenLock(station: string): string {
  return `the pivot bolts of ${station} and then its lock bolts`;
}
export function lockThenPivot(station: string): string {
  return `the lock bolts of ${station} and then its pivot bolts`;
}
