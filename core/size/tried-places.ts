import { adjusterKind, travelFromSlack } from '../adjuster';
import type { Belt, Drive, TriedBelt, TriedReading } from '../drive';
import { hundredth, toDegrees } from '../numeric';
import { TRIED_DEFAULTS } from './defaults';
import { PLACE_WORDS, type PlaceName } from './tried-words';

/** The breadth of a finger, mm, and how sure a hand is of it. Defaults. */
const FINGER_MM = { mm: 15, plusMinus: 4 };
/** How sure an eye is of the middle of a window, as a fraction of it. A default. */
const MIDDLE = 0.12;

/** A place of the adjuster that is told by a look, and what it reads there. */
export interface TriedPlace {
  name: PlaceName;
  words: string;
  reading: Pick<TriedBelt, 'pointerDeg' | 'travelMm' | 'shims' | 'plusMinus'>;
}

/** Where a belt may sit taut as a mechanic says it without a rule, from the slack end on; none on fixed centres. */
export function triedPlaces(drive: Drive, belt: Belt): TriedPlace[] {
  const travel = travelFromSlack(drive, belt);
  if (!travel) return [];
  const place = (name: PlaceName, reading: TriedPlace['reading']) => ({ name, words: PLACE_WORDS[name], reading });
  const adjuster = drive.stations.find(({ id }) => id === travel.station)?.adjuster;
  if (adjuster?.kind === 'sprung-arm' && travel.marks) {
    const [short, long] = [travel.readingAt(travel.marks.short), travel.readingAt(travel.marks.long)];
    const toward = Math.sign(long - short);
    const finger = toDegrees(FINGER_MM.mm / Math.max(1, adjuster.armLength));
    const unsure = toDegrees(FINGER_MM.plusMinus / Math.max(1, adjuster.armLength));
    const at = (degrees: number, plusMinus: number) => ({
      pointerDeg: hundredth(degrees),
      plusMinus: hundredth(Math.max(0.1, plusMinus)),
    });
    return [
      place('before-short', at(short - toward * finger, unsure)),
      place('short-mark', at(short, TRIED_DEFAULTS.pointerDeg)),
      ...(Math.abs(long - short) > 3 * finger ? [place('past-short', at(short + toward * finger, unsure))] : []),
      place('middle', at((short + long) / 2, MIDDLE * Math.abs(long - short))),
      ...(Math.abs(long - short) > 3 * finger ? [place('before-long', at(long - toward * finger, unsure))] : []),
      place('long-mark', at(long, TRIED_DEFAULTS.pointerDeg)),
      place('past-long', at(long + toward * finger, unsure)),
    ];
  }
  if (travel.reads !== 'travel') return [];
  const range = travel.readingAt(1);
  const at = (fraction: number) => ({
    travelMm: hundredth(fraction * range),
    plusMinus: hundredth(Math.max(0.1, MIDDLE * range)),
  });
  return [
    place('slack-end', at(0.03)),
    place('first-quarter', at(0.25)),
    place('half-way', at(0.5)),
    place('last-quarter', at(0.75)),
    place('tight-end', at(0.97)),
  ];
}

/** Which reading says exactly where a belt sits on this adjuster; null on fixed centres. */
export function triedReadingOf(drive: Drive, belt: Belt): TriedReading | null {
  const travel = travelFromSlack(drive, belt);
  const adjuster = travel && drive.stations.find(({ id }) => id === travel.station)?.adjuster;
  if (!adjuster) return null;
  if (travel.reads === 'armAngle') return 'pointerDeg';
  const setting = adjusterKind(adjuster.kind).setting;
  if (setting?.shims(adjuster)) return 'shims';
  return setting?.inTurns ? 'turns' : 'travelMm';
}
