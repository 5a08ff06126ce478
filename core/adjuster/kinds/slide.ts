import { moveStation, type Slide } from '../../drive';
import { toRadians } from '../../numeric';
import { type AdjusterKind, byScrewOrBar } from './kind';

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
    return {
      station: station.id,
      kind: adjuster.kind,
      reads: 'travel',
      at: (fraction) =>
        moveStation(
          drive,
          station.id,
          station.x + Math.cos(direction) * travel * fraction,
          station.y + Math.sin(direction) * travel * fraction,
        ),
      readingAt: (fraction) => Math.abs(travel) * fraction,
      marks: null,
      now: 0,
    };
  },
  slackEndGiven: false,
  moves: 'shaft-from-here',
  asked: { lengths: [['travel', 'Travel']], angles: [['direction', 'Direction of travel']] },
  setting: byScrewOrBar(),
  steps: { way: 'move', boltsOff: lockBolts, boltsOn: lockBolts, moves: { verb: 'Move', what: (station) => station } },
};
