import type { SlotPivot } from '../../drive';
import { besideAngle, RADIANS, toRadians } from '../../numeric';
import { type AdjusterKind, byScrewOrBar, lerp, pivotBelow, shaftAt, shaftTravel } from './kind';
import { lockThenPivot, pivotThenLock } from './sprung-arm';

/** The accessory swings about a pivot along a slot. */
export const SLOT_PIVOT: AdjusterKind<SlotPivot> = {
  label: 'Slot and pivot',
  caution: null,
  start: (shaft) => ({ kind: 'slot-pivot', pivot: pivotBelow(shaft), inAngle: 100, outAngle: 75 }),
  travel: (drive, station, adjuster) => {
    const { pivot, inAngle: slack } = adjuster;
    const radius = Math.hypot(station.x - pivot.x, station.y - pivot.y);
    const tight = besideAngle(adjuster.outAngle, slack);
    if (slack === tight || radius < 1e-6) return null;
    const angleAt = (fraction: number) => toRadians(lerp(slack, tight, fraction));
    const standing = besideAngle(Math.atan2(station.y - pivot.y, station.x - pivot.x) / RADIANS, (slack + tight) / 2);
    const placeAt = (fraction: number) => ({
      x: pivot.x + radius * Math.cos(angleAt(fraction)),
      y: pivot.y + radius * Math.sin(angleAt(fraction)),
    });
    return shaftTravel(station, adjuster, toRadians(Math.abs(tight - slack)) * radius, {
      at: (fraction) => shaftAt(drive, station, placeAt(fraction)),
      now: (standing - slack) / (tight - slack),
    });
  },
  slackEndGiven: true,
  moves: 'shaft',
  asked: {
    places: [['pivot', 'Pivot']],
    angles: [
      ['inAngle', 'Angle at slack end'],
      ['outAngle', 'Angle at tight end'],
    ],
  },
  setting: byScrewOrBar(),
  steps: {
    way: 'move',
    boltsOff: pivotThenLock,
    boltsOn: lockThenPivot,
    moves: { verb: 'Swing', what: (station) => station },
  },
};
