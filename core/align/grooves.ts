import { type Belt, type Drive, pulleysById, stationOf } from '../drive';
import { type Alignment, alignmentOf, ANGLE_LIMITS, seatOf, worseOf } from '../planes';

/** A grooved pulley of a ribbed belt, as it is counted: the grooves the belt leaves free on it. */
export interface GrooveCount {
  at: number;
  pulley: string;
  grooves: number;
  /** Free in front of the belt, and behind it toward the engine, where it sits in the same-numbered grooves. */
  front: number;
  back: number;
  /** Counted free in front; null where nobody counted. */
  counted: number | null;
  /** Grooves the belt sits further out than it should, by the count; 0 where nobody counted. */
  off: number;
}

/**
 * The grooved pulleys of a ribbed belt, the lowest first, for those are the hardest to see. The belt should sit in the
 * same-numbered grooves all round: those that the crank's count says, or the first.
 */
export function grooveCounts(drive: Drive, belt: Belt): GrooveCount[] {
  const known = pulleysById(drive);
  const datum = belt.route.find(({ pulley }) => stationOf(drive, pulley)?.role === 'crankshaft');
  const meant = datum ? seatOf(drive, belt, datum) : 0;
  return belt.route
    .flatMap((stop, at): (GrooveCount & { y: number })[] => {
      const { pulley, station } = known.get(stop.pulley)!;
      if (pulley.surface !== 'ribbed' || stop.side !== 'drive' || !belt.ribs || !pulley.grooves) return [];
      const free = pulley.grooves - belt.ribs;
      return [
        {
          at,
          pulley: stop.pulley,
          grooves: pulley.grooves,
          front: free - meant,
          back: meant,
          counted: stop.front ?? null,
          off: stop.front === undefined ? 0 : free - meant - stop.front,
          y: station.y,
        },
      ];
    })
    .sort((a, b) => a.y - b.y)
    .map(({ y: _, ...count }) => count);
}

/** A pulley that stands about a whole rib off, and would be good but for that. */
export interface RibOff {
  at: number;
  pulley: string;
  /** Ribs that the belt lies further out there than its neighbours have it. */
  ribs: number;
  /** The pulley has a free groove on the side that the belt has to go to. */
  free: boolean;
  /** The belt was counted there into another groove than the crank's. */
  counted: boolean;
}

/** More ribs off than these are not looked for. */
const MOST_RIBS = 3;

/**
 * Pulleys where one rib, or a few, explains what both neighbours show: with the belt that many grooves over both runs
 * would be good, as it is they are not.
 */
export function ribsOff(drive: Drive, alignment: Alignment): RibOff[] {
  const { belt, section, solution, runs, planes, seatsMm } = alignment;
  if (section.kind !== 'ribbed') return [];
  const limit = ANGLE_LIMITS.good;
  return grooveCounts(drive, belt).flatMap(({ at, pulley, grooves, counted, off }): RibOff[] => {
    const beside = runs.filter(({ fromAt, toAt }) => fromAt === at || toAt === at);
    if (planes[at]!.covariance[0] === 0 || beside.length < 2 || beside.some((run) => worseOf(run) <= limit)) return [];
    for (let ribs = 1; ribs <= MOST_RIBS; ribs += 1) {
      for (const sign of [1, -1]) {
        const shifts = [{ pulley, steps: -sign * ribs }];
        const moved = alignmentOf(drive, belt.id, { shifts, solution })!.runs;
        const after = moved.filter(({ fromAt, toAt }) => fromAt === at || toAt === at);
        if (after.some((run) => worseOf(run) > limit)) continue;
        const seat = Math.round(seatsMm[at]! / section.width) - sign * ribs;
        const free = seat >= 0 && seat + (belt.ribs ?? grooves) <= grooves;
        return [{ at, pulley, ribs: sign * ribs, free, counted: counted !== null && off !== 0 }];
      }
    }
    return [];
  });
}
