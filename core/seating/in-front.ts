import { type Belt, type Drive, pulleysById, type RouteStop } from '../drive';
import {
  type BeltSolution,
  boxesApart,
  distance,
  distanceToSegment,
  nearestOfSegments,
  type Point,
  segmentsCross,
  solveDrive,
} from '../path';
import { bodyRadiusMm, sectionFor } from '../section';

/** A belt that runs in front of another: on a shaft they share, else across it or across a pulley of it. */
export interface InFront {
  belt: string;
  /** The shaft where it lies in front; null where it only crosses. */
  station: string | null;
}

/** A piece of a belt in the front view, with its plane at either end: a span, or a chord of what lies on a pulley. */
interface Piece {
  a: Point;
  b: Point;
  za: number;
  zb: number;
}

/** Planes nearer together than this are one: belts there touch, and neither is in front. mm. */
const SAME_PLANE = 1;
/** Arcs are looked at in chords of so many degrees. */
const CHORD_DEG = 8;

/**
 * Every belt with those that run in front of it: by plane at a shaft they share, or where one crosses the other's line
 * or the face of one of its pulleys in the front view. They come off before it can. By belt id, in the order of the
 * file.
 */
export function frontsOf(drive: Drive): ReadonlyMap<string, readonly InFront[]> {
  const { belts: solved } = solveDrive(drive);
  const laid = drive.belts.map((belt, b) => lay(drive, belt, solved[b]!));
  return new Map(
    laid.map((own) => [
      own.belt.id,
      laid.flatMap((other): InFront[] => {
        if (other === own) return [];
        const station = sharedInFront(own, other);
        if (station !== null) return [{ belt: other.belt.id, station }];
        // On a shaft of both the planes have said which is in front, so a crossing tells nothing more of that pair.
        if (sharedInFront(other, own) !== null) return [];
        return crosses(other, own) ? [{ belt: other.belt.id, station: null }] : [];
      }),
    ]),
  );
}

/** The belts that run in front of one; none for a belt the drive does not have. */
export function beltsInFront(drive: Drive, beltId: string): readonly InFront[] {
  return frontsOf(drive).get(beltId) ?? [];
}

interface Laid {
  belt: Belt;
  /** Foremost and rearmost plane of the belt on each shaft. */
  shafts: ReadonlyMap<string, { front: number; rear: number }>;
  pieces: readonly Piece[];
  /** Of the rubber, mm. */
  thickness: number;
  faces: readonly { at: Point; radius: number; z: number }[];
  foremost: number;
  rearmost: number;
}

/** The plane of a belt's rearmost rib on a pulley: the first groove's, or as many grooves on as were counted. */
function planeOn(drive: Drive, belt: Belt, { pulley: id, side, front }: RouteStop): number {
  const placed = pulleysById(drive).get(id);
  const { plane = 0, grooves } = placed?.pulley ?? {};
  if (front === undefined || grooves === undefined || side === 'back') return plane;
  const pitch = sectionFor(belt.section, belt.sectionOverrides)?.width ?? 0;
  return plane + pitch * (grooves - (belt.ribs ?? 1) - front);
}

function lay(drive: Drive, belt: Belt, { contacts, spans }: BeltSolution): Laid {
  const pulleys = pulleysById(drive);
  const section = sectionFor(belt.section, belt.sectionOverrides);
  const planes = belt.route.map((stop) => planeOn(drive, belt, stop));
  const shafts = new Map<string, { front: number; rear: number }>();
  belt.route.forEach(({ pulley }, k) => {
    const station = pulleys.get(pulley)?.station.id;
    if (station === undefined) return;
    const { front, rear } = shafts.get(station) ?? { front: -Infinity, rear: Infinity };
    shafts.set(station, { front: Math.max(front, planes[k]!), rear: Math.min(rear, planes[k]!) });
  });
  const ofSpans = spans.flatMap(({ length, start, end }, k): Piece[] =>
    length === null ? [] : [{ a: start, b: end, za: planes[k]!, zb: planes[(k + 1) % planes.length]! }],
  );
  const ofArcs = contacts.flatMap(({ centre, cordRadius, arrive, turn, wrapDeg }, k): Piece[] => {
    if (!arrive || wrapDeg === null) return [];
    const from = Math.atan2(arrive.y - centre.y, arrive.x - centre.x);
    const steps = Math.max(1, Math.ceil(wrapDeg / CHORD_DEG));
    const at = (j: number): Point => {
      const angle = from + (turn * wrapDeg * Math.PI * j) / (180 * steps);
      return { x: centre.x + cordRadius * Math.cos(angle), y: centre.y + cordRadius * Math.sin(angle) };
    };
    return Array.from({ length: steps }, (_, j) => ({ a: at(j), b: at(j + 1), za: planes[k]!, zb: planes[k]! }));
  });
  const faces = belt.route.flatMap(({ pulley: id }, k) => {
    const placed = pulleys.get(id);
    if (!placed) return [];
    const { x, y } = placed.station;
    return [{ at: { x, y }, radius: bodyRadiusMm(placed.pulley, section), z: planes[k]! }];
  });
  return {
    belt,
    shafts,
    pieces: [...ofSpans, ...ofArcs],
    thickness: section?.thickness ?? 0,
    faces,
    foremost: Math.max(...planes),
    rearmost: Math.min(...planes),
  };
}

/** The first shaft of both on which `other` lies wholly in front of `own`. */
function sharedInFront(own: Laid, other: Laid): string | null {
  for (const [station, { front }] of own.shafts) {
    const there = other.shafts.get(station);
    if (there && there.rear > front) return station;
  }
  return null;
}

/** Whether a belt lies, in front, over the line of another or over the face of one of its pulleys. */
function crosses(front: Laid, behind: Laid): boolean {
  const touching = (front.thickness + behind.thickness) / 2;
  // Most pairs lie wholly behind or beside one another, and no piece of theirs has to be looked at.
  if (front.foremost <= behind.rearmost + SAME_PLANE) return false;
  return front.pieces.some((piece) => {
    const z = Math.max(piece.za, piece.zb);
    return (
      behind.pieces.some((otherPiece) => {
        if (
          z <= Math.min(otherPiece.za, otherPiece.zb) + SAME_PLANE ||
          boxesApart(piece.a, piece.b, otherPiece.a, otherPiece.b, touching)
        )
          return false;
        const { mm, onA, onB } = meetingOf(piece, otherPiece);
        return mm < touching && planeAt(piece, onA) > planeAt(otherPiece, onB) + SAME_PLANE;
      }) ||
      behind.faces.some(
        ({ at, radius, z: face }) =>
          z > face + SAME_PLANE &&
          distanceToSegment(at, piece.a, piece.b) < radius &&
          planeAt(piece, at) > face + SAME_PLANE,
      )
    );
  });
}

/** Where two pieces cross, or else are nearest. */
function meetingOf({ a, b }: Piece, { a: c, b: d }: Piece): ReturnType<typeof nearestOfSegments> {
  if (!segmentsCross(a, b, c, d)) return nearestOfSegments(a, b, c, d);
  const side = (p: Point) => (d.x - c.x) * (p.y - c.y) - (d.y - c.y) * (p.x - c.x);
  const share = side(a) / (side(a) - side(b));
  const at = { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) };
  return { mm: 0, onA: at, onB: at };
}

/** The plane of a piece at the point of it that is nearest to a place. */
const planeAt = (piece: Piece, place: Point) => piece.za + (piece.zb - piece.za) * footShare(piece, place);

/** How far along a piece the foot of a point on it lies, 0 to 1. */
function footShare({ a, b }: Piece, p: Point): number {
  const length = distance(a, b);
  if (length === 0) return 0;
  const along = ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / length ** 2;
  return Math.min(1, Math.max(0, along));
}
