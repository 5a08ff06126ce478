import { pulleysById } from '../drive/look-up';
import type { Drive } from '../drive/types';
import { facingDepthMm, sectionFor } from '../section';
import { bodiesInPlane, clearOf } from './bodies';
import { isLeft } from './checks';
import type { BeltSolution } from './solution';
import { betweenSegments } from './tangent';

/** The nearest thing to a span of the belt: a pulley it does not touch, an obstacle, or another span, named by its ends. */
export interface SpanClearance {
  /** From the belt's own face, not its cord; mm. */
  mm: number;
  pulley?: string;
  obstacle?: string;
  span?: { from: string; to: string };
}

/** For each span, in order, what comes nearest to the belt; null where nothing else is there or the span has no line. */
export function spanClearances(drive: Drive, solved: BeltSolution): (SpanClearance | null)[] {
  const belt = drive.belts.find(({ id }) => id === solved.id);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  if (!belt || !section) return solved.spans.map(() => null);
  const bodies = bodiesInPlane(belt, section, solved.contacts, { pulleys: pulleysById(drive), drive });
  const drivesLeft = solved.contacts[0] && (solved.contacts[0].side === 'drive') === (solved.contacts[0].turn === 1);
  return solved.spans.map((span, index) => {
    if (span.length === null) return null;
    const metal = bodies
      .filter(({ id, station }) => station === null || (id !== span.from && id !== span.to))
      .map((body): SpanClearance => ({
        mm: clearOf(body, span.start, span.end) - facingDepthMm(isLeft(span, body) === drivesLeft ? 'drive' : 'back', section),
        ...(body.station === null ? { obstacle: body.id } : { pulley: body.id }),
      }));
    // Neighbouring spans meet at their pulley; only others count.
    const count = solved.spans.length;
    const others = solved.spans
      .filter((other, k) => k !== index && other.length !== null && (k + 1) % count !== index && (index + 1) % count !== k)
      .map((other): SpanClearance => ({ mm: betweenSegments(span.start, span.end, other.start, other.end) - section.thickness, span: { from: other.from, to: other.to } }));
    return [...metal, ...others].reduce<SpanClearance | null>((least, next) => (least === null || next.mm < least.mm ? next : least), null);
  });
}
