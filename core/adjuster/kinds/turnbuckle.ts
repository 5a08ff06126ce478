import { changeStation, type Point, type Turnbuckle } from '../../drive';
import { type AdjusterKind, byScrewOrBar, DEFAULT_PITCH_MM, lerp, pivotBelow, roundTenth, shaftTravel } from './kind';

/**
 * The link from the anchor to the lug turns the accessory about its pivot: the lug's angle follows from the three
 * sides.
 */
export const TURNBUCKLE: AdjusterKind<Turnbuckle> = {
  label: 'Turnbuckle',
  caution: null,
  start: (shaft) => ({
    kind: 'turnbuckle',
    pivot: pivotBelow(shaft),
    anchor: { x: roundTenth(shaft.x - 100), y: roundTenth(shaft.y + 20) },
    lug: { x: roundTenth(shaft.x), y: roundTenth(shaft.y + 40) },
    minLength: 90,
    maxLength: 120,
  }),
  travel: (drive, station, adjuster) => {
    const { pivot, anchor, lug, minLength, maxLength } = adjuster;
    const reach = Math.hypot(lug.x - pivot.x, lug.y - pivot.y);
    const base = Math.hypot(anchor.x - pivot.x, anchor.y - pivot.y);
    if (minLength === maxLength || reach < 1e-6 || base < 1e-6) return null;
    const toAnchor = Math.atan2(anchor.y - pivot.y, anchor.x - pivot.x);
    const toLug = Math.atan2(lug.y - pivot.y, lug.x - pivot.x);
    // Which side of the line from pivot to anchor the lug is on: it stays there.
    const side = Math.sin(toLug - toAnchor) >= 0 ? 1 : -1;
    const turnFor = (link: number) => {
      const cosine = Math.max(-1, Math.min(1, (reach ** 2 + base ** 2 - link ** 2) / (2 * reach * base)));
      return toAnchor + side * Math.acos(cosine) - toLug;
    };
    const now = Math.hypot(lug.x - anchor.x, lug.y - anchor.y);
    return shaftTravel(station, adjuster, Math.abs(maxLength - minLength), {
      at: (fraction) => {
        const turn = turnFor(lerp(minLength, maxLength, fraction));
        const turned = ({ x, y }: Point): Point => ({
          x: pivot.x + Math.cos(turn) * (x - pivot.x) - Math.sin(turn) * (y - pivot.y),
          y: pivot.y + Math.sin(turn) * (x - pivot.x) + Math.cos(turn) * (y - pivot.y),
        });
        // The lug sits on the accessory and goes with it.
        return changeStation(drive, station.id, { ...turned(station), adjuster: { ...adjuster, lug: turned(lug) } });
      },
      now: (now - minLength) / (maxLength - minLength),
    });
  },
  slackEndGiven: false,
  moves: 'shaft',
  asked: {
    places: [
      ['pivot', 'Pivot'],
      ['anchor', 'Link anchor'],
      ['lug', 'Link lug now'],
    ],
    lengths: [
      ['minLength', 'Shortest link'],
      ['maxLength', 'Longest link, safe thread'],
    ],
  },
  setting: {
    ...byScrewOrBar<Turnbuckle>(),
    // A right-hand and a left-hand end.
    pitches: ({ pitches }) => ({ mm: pitches ?? [DEFAULT_PITCH_MM, DEFAULT_PITCH_MM], given: pitches !== undefined }),
    barred: false,
    inTurns: true,
    mmOf: 'the link',
  },
  steps: {
    way: 'move',
    boltsOff: (station) => `the pivot bolts of ${station} and then the jam nuts of its link`,
    boltsOn: (station) => `the jam nuts of the link of ${station} and then its pivot bolts`,
    moves: { verb: 'Turn the link of', what: (station) => `${station} so that it swings` },
  },
};
