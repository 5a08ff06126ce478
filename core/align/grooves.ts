import { type Belt, type Drive, pulleysById } from '../drive';
import { type Alignment, datumOf, datumSeatOf, pitchOf, planeOf } from '../planes';
import { sectionFor } from '../section';

/** A grooved pulley of a ribbed belt, as it is counted: the grooves the belt leaves free on it. */
export interface GrooveCount {
  at: number;
  pulley: string;
  grooves: number;
  /** Free in front of the belt, and behind it toward the engine, where it sits in the same-numbered grooves. */
  front: number;
  back: number;
  /** Counted free in front, below zero where ribs hang over there; null where nobody counted. */
  counted: number | null;
  /**
   * Grooves the belt sits further out than it should, by the count; 0 where nobody counted, and where the pulley was
   * read to stand off so that the groove over brings the belt nearer to line.
   */
  off: number;
}

/**
 * The grooved pulleys of a ribbed belt, the lowest first, for those are the hardest to see. The belt should sit in the
 * same-numbered grooves all round: those that the crank's count says, or the first.
 */
export function grooveCounts(drive: Drive, belt: Belt): GrooveCount[] {
  const known = pulleysById(drive);
  const meant = datumSeatOf(drive, belt);
  return belt.route
    .flatMap((stop, at): (GrooveCount & { y: number })[] => {
      const { pulley, station } = known.get(stop.pulley)!;
      if (pulley.surface !== 'ribbed' || stop.side !== 'drive' || !belt.ribs || !pulley.grooves) return [];
      const free = pulley.grooves - belt.ribs;
      const over = stop.front === undefined ? 0 : free - meant - stop.front;
      return [
        {
          at,
          pulley: stop.pulley,
          grooves: pulley.grooves,
          front: free - meant,
          back: meant,
          counted: stop.front ?? null,
          off: over !== 0 && isMeant(drive, belt, stop.pulley, over) ? 0 : over,
          y: station.y,
        },
      ];
    })
    .sort((a, b) => a.y - b.y)
    .map(({ y: _, ...count }) => count);
}

/** The belt was put into another groove on purpose: its pulley stands off the other way. */
function isMeant(drive: Drive, belt: Belt, pulley: string, over: number): boolean {
  const { offset, readings } = planeOf(drive, belt.id, pulley);
  const pitch = pitchOf(sectionFor(belt.section, belt.sectionOverrides)!);
  return readings.length > 0 && Math.abs(offset + over * pitch) < Math.abs(offset);
}

/** A pulley that stands about a whole rib off, and would be good but for that. */
export interface RibOff {
  at: number;
  pulley: string;
  /** Ribs that the belt lies further out there than its neighbours have it. */
  ribs: number;
  /** The pulley has a free groove on the side that the belt has to go to. */
  free: boolean;
}

/** More ribs off than these are no slip of a groove. */
const MOST_RIBS = 3;
/** A step this near to whole ribs is taken for them, as a share of the pitch. */
const ABOUT = 0.3;

/**
 * Pulleys that a step of one rib, or a few, sets off from both neighbours: neither of their runs is good, and they
 * stand about a whole number of ribs off the straight line from one neighbour to the other.
 */
export function ribsOff(drive: Drive, { belt, section, runs, planes, seatsMm, datumSeat }: Alignment): RibOff[] {
  if (section.kind !== 'ribbed') return [];
  const pitch = section.width;
  const datum = datumOf(drive, belt.id);
  return grooveCounts(drive, belt).flatMap(({ at, pulley, grooves, off }): RibOff[] => {
    const [into, out] = [runs.find(({ toAt }) => toAt === at), runs.find(({ fromAt }) => fromAt === at)];
    // What the count says by itself is told as that.
    const known = pulley !== datum && planes[at]!.readings.length > 0 && off === 0;
    if (!known || !into || !out || into.verdict === 'good' || out.verdict === 'good') return [];
    const lengths = (into.lengthMm * out.lengthMm) / Math.max(1e-3, into.lengthMm + out.lengthMm);
    const step = (into.slope - out.slope) * lengths;
    const ribs = Math.round(step / pitch);
    if (ribs === 0 || Math.abs(ribs) > MOST_RIBS || Math.abs(step - ribs * pitch) > ABOUT * pitch) return [];
    const seat = Math.round(seatsMm[at]! / pitch) + datumSeat - ribs;
    const free = seat >= 0 && seat + (belt.ribs ?? grooves) <= grooves;
    return [{ at, pulley, ribs, free }];
  });
}
