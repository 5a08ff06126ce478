import type { Slide } from '../../drive';
import { toRadians } from '../../numeric';
import { type AdjusterKind, byScrewOrBar, shaftAt, shaftTravel } from './kind';

const lockBolts = (station: string) => `the lock bolts of ${station}`;

/** The shaft slides in a straight line, from where it stands. */
export const SLIDE: AdjusterKind<Slide> = {
  label: 'Slide',
  caution: null,
  start: () => ({ kind: 'slide', direction: 90, travel: 25 }),
  travel: (drive, station, adjuster) => {
    const { travel } = adjuster;
    const direction = toRadians(adjuster.direction);
    if (travel === 0) return null;
    const placeAt = (fraction: number) => ({
      x: station.x + Math.cos(direction) * travel * fraction,
      y: station.y + Math.sin(direction) * travel * fraction,
    });
    return shaftTravel(station, adjuster, Math.abs(travel), {
      at: (fraction) => shaftAt(drive, station, placeAt(fraction)),
      now: 0,
    });
  },
  slackEndGiven: false,
  moves: 'shaft-from-here',
  asked: { lengths: [['travel', 'Travel']], angles: [['direction', 'Direction of travel']] },
  setting: byScrewOrBar(),
  steps: { way: 'move', boltsOff: lockBolts, boltsOn: lockBolts, moves: { verb: 'Move', what: (station) => station } },
};
