import { type Drive, pulleysById } from '../drive';
import { sectionFor } from '../section';
import { bodiesInPlane } from './bodies';
import { type Encounter, encounters } from './encounters';
import type { BeltSolution } from './solution';

/**
 * The nearest thing to a piece of the belt: a pulley, the belt where it lies on a pulley, an obstacle, or another span,
 * named by its ends.
 */
export interface Clearance {
  /** From face to face, mm; below zero where they rub. */
  mm: number;
  pulley?: string;
  /** The belt lies on that pulley there, and is what is met. */
  onBelt?: true;
  obstacle?: string;
  span?: { from: string; to: string };
}

/**
 * What every piece of a belt comes nearest to, in the order of its spans and of its pulleys; null where nothing else is
 * there.
 */
export interface BeltClearances {
  spans: (Clearance | null)[];
  contacts: (Clearance | null)[];
  /** The least of them all, mm. */
  least: number | null;
}

/** How clear a solved belt runs of metal and of itself. */
export function beltClearances(drive: Drive, solved: BeltSolution): BeltClearances {
  const belt = drive.belts.find(({ id }) => id === solved.id);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  const found: BeltClearances = {
    spans: solved.spans.map(() => null),
    contacts: solved.contacts.map(() => null),
    least: null,
  };
  if (!belt || !section) return found;
  const bodies = bodiesInPlane(belt, section, solved.contacts, { pulleys: pulleysById(drive), drive }).filter(
    ({ spare }) => !spare,
  );
  const nearer = (list: (Clearance | null)[], at: number, clearance: Clearance) => {
    const before = list[at];
    if (!before || clearance.mm < before.mm) list[at] = clearance;
  };
  const spanEnds = (at: number) => ({ from: solved.spans[at]!.from, to: solved.spans[at]!.to });
  for (const met of encounters(section, solved.contacts, solved.spans, bodies)) {
    const { span, contact, otherSpan, otherContact, mm } = met;
    if (found.least === null || mm < found.least) found.least = mm;
    if (span !== undefined) nearer(found.spans, span, { mm, ...thingMet(met, spanEnds) });
    if (contact !== undefined) nearer(found.contacts, contact, { mm, ...thingMet(met, spanEnds) });
    if (otherSpan !== undefined) nearer(found.spans, otherSpan, { mm, span: spanEnds(span!) });
    if (otherContact !== undefined) {
      nearer(found.contacts, otherContact, {
        mm,
        ...(span === undefined
          ? { pulley: solved.contacts[contact!]!.pulley, onBelt: true }
          : { span: spanEnds(span) }),
      });
    }
  }
  return found;
}

/**
 * How clear a solved belt runs of one pulley that it does not run on, mm, below zero where it runs through it; null
 * where that stands in another plane. A part that may be left out counts as the metal it is.
 */
export function clearanceToPulley(drive: Drive, solved: BeltSolution, pulley: string): number | null {
  const belt = drive.belts.find(({ id }) => id === solved.id);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  if (!belt || !section) return null;
  const bodies = bodiesInPlane(belt, section, solved.contacts, { pulleys: pulleysById(drive), drive });
  const [body] = bodies.filter(({ id, own }) => id === pulley && !own);
  if (!body) return null;
  const met = encounters(section, solved.contacts, solved.spans, [...bodies.filter(({ own }) => own), body]);
  const near = met.filter((encounter) => encounter.body === body).map(({ mm }) => mm);
  return near.length === 0 ? null : Math.min(...near);
}

function thingMet(
  { body, otherSpan, otherContact }: Encounter,
  spanEnds: (at: number) => { from: string; to: string },
): Omit<Clearance, 'mm'> {
  if (otherSpan !== undefined) return { span: spanEnds(otherSpan) };
  if (body!.station === null) return { obstacle: body!.id };
  return { pulley: body!.id, ...(otherContact !== undefined && { onBelt: true as const }) };
}
