import { facingDepthMm, type Section } from '../section';
import { type Body, clearOf } from './bodies';
import type { ContactSolution, SpanSolution } from './solution';
import { boxesApart, distance, distanceToSegment, footOnSegment, nearestOfSegments, type Point } from './tangent';
import { toDegrees } from '../numeric';

/**
 * A piece of the belt, a span or what lies on a pulley (by place in the solution), and something it may touch: metal,
 * or another piece of the belt.
 */
export interface Encounter {
  span?: number;
  contact?: number;
  /** Metal that is met, also where the belt lies on it. */
  body?: Body;
  otherSpan?: number;
  otherContact?: number;
  /** From face to face, mm; below zero where they rub. */
  mm: number;
  /** From the cord to the metal, mm; below zero inside it. */
  toMetal?: number;
}

/**
 * Everything that pieces of one belt come closer to than `within` mm, each with the face that is turned toward it: the
 * back, or the side of the ribs, V or teeth. Pieces that meet where they join are left out: a span and its own two
 * pulleys, and neighbouring spans that draw apart.
 */
export function encounters(
  section: Section,
  contacts: readonly ContactSolution[],
  spans: readonly SpanSolution[],
  bodies: readonly Body[],
  within = Infinity,
): Encounter[] {
  const depth = { drive: facingDepthMm('drive', section), back: facingDepthMm('back', section) };
  const drivesLeft = (contacts[0]?.side === 'drive') === (contacts[0]?.turn === 1);
  const facing = (span: SpanSolution, point: Point) => depth[isLeft(span, point) === drivesLeft ? 'drive' : 'back'];
  // Away from its pulley a belt shows the side that does not lie on it.
  const outside = ({ side }: ContactSolution) => depth[side === 'drive' ? 'back' : 'drive'];
  const lyingOn = (pulley: string, toward: Point) =>
    contacts.findIndex((contact) => contact.pulley === pulley && holds(contact, toward));
  // Every drag asks this of every pair, so what is plainly too far is passed over first.
  const far = within + 2 * Math.max(0, depth.drive, depth.back);
  const reaches = bodies.map(({ id, radius }) =>
    contacts.reduce((max, { pulley, cordRadius }) => (pulley === id ? Math.max(max, cordRadius) : max), radius),
  );
  const found: Encounter[] = [];
  const keep = (encounter: Encounter) => encounter.mm < within && found.push(encounter);
  const around: Around = { contacts, spans, bodies, reaches, far, facing, outside, lyingOn, keep };
  spans.forEach((span, s) => {
    if (span.length !== null) spanMeets(around, span, s);
  });
  contacts.forEach((contact, c) => {
    if (contact.wrapDeg !== null) contactMeets(around, contact, c);
  });
  return found;
}

/** What a piece of the belt is held against. */
interface Around {
  contacts: readonly ContactSolution[];
  spans: readonly SpanSolution[];
  bodies: readonly Body[];
  /** How far each body reaches with the belt on it, mm. */
  reaches: readonly number[];
  /** What is further off than this is passed over, mm. */
  far: number;
  /** From the cord to the face that a span turns toward a point, and to the one away from a contact's pulley, mm. */
  facing: (span: SpanSolution, point: Point) => number;
  outside: (contact: ContactSolution) => number;
  /** The contact that lies on a pulley in the direction of a point; -1 for none. */
  lyingOn: (pulley: string, toward: Point) => number;
  keep: (encounter: Encounter) => void;
}

function spanMeets(around: Around, span: SpanSolution, s: number): void {
  const { contacts, spans, bodies, reaches, far, facing, outside, lyingOn, keep } = around;
  for (const [b, body] of bodies.entries()) {
    if (body.station !== null && (body.id === span.from || body.id === span.to)) continue;
    const toMetal = clearOf(body, span.start, span.end);
    if (toMetal + body.radius - reaches[b]! > far) continue;
    const own = facing(span, body);
    const otherContact = body.own ? lyingOn(body.id, footOnSegment(body, span.start, span.end)) : -1;
    if (otherContact < 0) {
      keep({ span: s, body, mm: toMetal - own, toMetal });
      continue;
    }
    const there = contacts[otherContact]!;
    keep({
      span: s,
      body,
      otherContact,
      toMetal,
      mm: distanceToSegment(there.centre, span.start, span.end) - there.cordRadius - outside(there) - own,
    });
  }
  for (let o = s + 1; o < spans.length; o += 1) {
    const other = spans[o]!;
    if (other.length === null) continue;
    if (boxesApart(span.start, span.end, other.start, other.end, far)) continue;
    const apart = betweenSpans(contacts, spans, s, o);
    if (apart) keep({ span: s, otherSpan: o, mm: apart.mm - facing(span, apart.onB) - facing(other, apart.onA) });
  }
}

function contactMeets(around: Around, contact: ContactSolution, c: number): void {
  const { contacts, bodies, reaches, far, outside, lyingOn, keep } = around;
  for (const [b, body] of bodies.entries()) {
    if (body.station === null) {
      const toMetal = clearOfArc(body, contact);
      keep({ contact: c, body, toMetal, mm: toMetal - outside(contact) });
      continue;
    }
    const apart = distance(body, contact.centre);
    if (apart - contact.cordRadius - reaches[b]! > far || body.id === contact.pulley || !holds(contact, body)) continue;
    const otherContact = body.own ? lyingOn(body.id, contact.centre) : -1;
    const there = contacts[otherContact];
    // Two that lie face to face are met once.
    if (there && otherContact < c) continue;
    const reach = there ? there.cordRadius + outside(there) : body.radius;
    keep({
      contact: c,
      body,
      mm: apart - contact.cordRadius - outside(contact) - reach,
      ...(there ? { otherContact } : { toMetal: apart - contact.cordRadius - body.radius }),
    });
  }
}

/** True where the belt lies on its pulley in the direction of a point. */
export function holds({ arrive, wrapDeg, turn, centre }: ContactSolution, toward: Point): boolean {
  if (!arrive || wrapDeg === null) return false;
  const angle = (p: Point) => Math.atan2(p.y - centre.y, p.x - centre.x);
  const along = (((turn * (angle(toward) - angle(arrive))) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  return toDegrees(along) < wrapDeg;
}

export function isLeft({ start, end }: SpanSolution, point: Point): boolean {
  return (end.x - start.x) * (point.y - start.y) - (end.y - start.y) * (point.x - start.x) > 0;
}

/** From the cord where it lies on a pulley to an obstacle, mm: along chords of 6° or less. */
function clearOfArc(body: Body, { centre, cordRadius, turn, wrapDeg, arrive }: ContactSolution): number {
  if (!arrive || wrapDeg === null) return Infinity;
  const from = Math.atan2(arrive.y - centre.y, arrive.x - centre.x);
  const steps = Math.max(1, Math.ceil(wrapDeg / 6));
  const at = (k: number): Point => {
    const angle = from + (turn * wrapDeg * Math.PI * k) / (180 * steps);
    return { x: centre.x + cordRadius * Math.cos(angle), y: centre.y + cordRadius * Math.sin(angle) };
  };
  return Math.min(...Array.from({ length: steps }, (_, k) => clearOf(body, at(k), at(k + 1))));
}

/**
 * Where two spans are nearest. Neighbours join at a pulley, and draw apart from there unless they wrap more than half
 * of it: then it is their far ends that come together. Null where there is nothing to compare.
 */
function betweenSpans(
  contacts: readonly ContactSolution[],
  spans: readonly SpanSolution[],
  a: number,
  b: number,
): { mm: number; onA: Point; onB: Point } | null {
  const count = spans.length;
  const [left, right] = [spans[a]!, spans[b]!];
  const [before, after] = [(a + 1) % count === b, (b + 1) % count === a];
  if (!before && !after) return nearestOfSegments(left.start, left.end, right.start, right.end);
  if (before && after) return null;
  // A span ends on the contact that the next one leaves.
  const joint = contacts[before ? b : a]!;
  if (!((joint.wrapDeg ?? 0) > 180)) return null;
  const [first, second] = before ? [left, right] : [right, left];
  const ends = [
    { far: first.start, foot: footOnSegment(first.start, second.start, second.end), ofFirst: true },
    { far: second.end, foot: footOnSegment(second.end, first.start, first.end), ofFirst: false },
  ].map(({ far, foot, ofFirst }) => ({
    mm: distance(far, foot),
    ...(ofFirst === before ? { onA: far, onB: foot } : { onA: foot, onB: far }),
  }));
  return ends.reduce((near, next) => (next.mm < near.mm ? next : near));
}
