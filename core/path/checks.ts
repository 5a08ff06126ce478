import type { Belt, Pulley } from '../drive';
import { beltWidthMm, type Section } from '../section';
import { bodiesInPlane, type Body } from './bodies';
import { encounters, holds } from './encounters';
import type { PathFinding } from './finding';
import type { BeltSolution, ContactSolution } from './solution';
import { distance, segmentsCross } from './tangent';
import type { Workings } from './workings';
import { leastWrapDeg } from './wrap-limits';
import { headingDeg } from '../numeric';

type Contacts = BeltSolution['contacts'];
type Spans = BeltSolution['spans'];

/** Span angle between planes, degrees: up to `good` is nothing, above `wrong` a fault. Emery's defaults. */
const SPAN_ANGLE_DEG = { good: 0.5, wrong: 1 };

/** Where the belt cannot go: pulleys in one another, spans through pulleys, spans through spans. */
export function geometryFindings(
  belt: Belt,
  section: Section,
  contacts: Contacts,
  spans: Spans,
  workings: Workings,
): PathFinding[] {
  const bodies = bodiesInPlane(belt, section, contacts, workings);
  return [...overlaps(bodies), ...rubbing(section, spans, contacts, bodies), ...crossings(contacts, spans)];
}

/** Closer than this to something fixed, a running belt that flaps may touch it, mm. Emery's default. */
const NEAR_MM = 3;

/** What a belt that goes round may still suffer from: faces, grooves, direction, wrap, planes. */
export function materialFindings(
  belt: Belt,
  section: Section,
  contacts: Contacts,
  spans: Spans,
  workings: Workings,
): PathFinding[] {
  const findings: PathFinding[] = [];
  for (const contact of contacts) {
    const { pulley, station } = workings.pulleys.get(contact.pulley)!;
    const at = { pulley: contact.pulley };
    const surface = surfaceFinding(pulley, contact, section, station.role === 'idler' || station.role === 'tensioner');
    if (surface) findings.push({ ...surface, ...at });
    if (station.requires && station.requires !== contact.rotation) {
      findings.push({
        code: 'wrong-way-round',
        severity: 'fault',
        ...at,
        figures: { turns: contact.rotation, requires: station.requires },
      });
    }
    if (section.kind === 'ribbed' && contact.side === 'drive' && pulley.surface === 'ribbed')
      findings.push(...ribFindings(belt, pulley));
    const min = leastWrapDeg(station.role, section.kind);
    if (contact.wrapDeg !== null && contact.wrapDeg < min) {
      findings.push({
        code: 'low-wrap',
        severity: 'watch',
        ...at,
        figures: { wrapDeg: contact.wrapDeg, leastDeg: min },
      });
    }
  }
  return [...findings, ...planeFindings(belt, section, spans, workings)];
}

function surfaceFinding(
  pulley: Pulley,
  { side }: ContactSolution,
  section: Section,
  guides: boolean,
): Omit<PathFinding & { code: 'wrong-surface' }, 'pulley'> | null {
  const wanted = section.kind;
  const fits = side === 'back' ? pulley.surface === 'smooth' : pulley.surface === wanted;
  if (fits) return null;
  // A smooth roller on the drive side guides the belt and wears it; it transmits next to nothing, so only a guide may
  // be one.
  const severity = side === 'drive' && pulley.surface === 'smooth' && guides ? 'watch' : 'fault';
  return {
    code: 'wrong-surface',
    severity,
    figures: { side, surface: pulley.surface, wanted: side === 'back' ? 'smooth' : wanted },
  };
}

function ribFindings(belt: Belt, pulley: Pulley): PathFinding[] {
  if (belt.ribs === undefined) return [];
  if (pulley.grooves === undefined) return [{ code: 'grooves-unknown', severity: 'note', pulley: pulley.id }];
  if (pulley.grooves >= belt.ribs) return [];
  return [
    { code: 'rib-count', severity: 'fault', pulley: pulley.id, figures: { ribs: belt.ribs, grooves: pulley.grooves } },
  ];
}

/** The offset between neighbouring planes as an angle of the span between them. */
function planeFindings(belt: Belt, section: Section, spans: Spans, workings: Workings): PathFinding[] {
  const planes = belt.route.map(({ pulley }) => workings.pulleys.get(pulley)!.pulley.plane ?? 0).sort((a, b) => a - b);
  const middle = planes[Math.floor(planes.length / 2)] ?? 0;
  const strays = (pulley: Pulley) => Math.abs((pulley.plane ?? 0) - middle);
  return spans.flatMap((span) => {
    if (span.length === null) return [];
    const from = workings.pulleys.get(span.from)!.pulley;
    const to = workings.pulleys.get(span.to)!.pulley;
    const offset = planeOffset(belt, section, from, to);
    const angle = headingDeg(span.length, offset);
    if (angle <= SPAN_ANGLE_DEG.good) return [];
    return [
      {
        code: 'planes-apart',
        severity: angle > SPAN_ANGLE_DEG.wrong ? 'fault' : 'watch',
        pulley: strays(from) > strays(to) ? from.id : to.id,
        span: { from: span.from, to: span.to },
        figures: { offsetMm: offset, angleDeg: angle },
      } satisfies PathFinding,
    ];
  });
}

/**
 * How far the belt must shift between two pulleys, mm. A ribbed pulley's plane is its first groove and a smooth one's
 * its middle, so between the two half the belt's width to either side is play, for nothing says from which end grooves
 * are counted; between two smooth ones there is none. Spare grooves let the belt sit any whole number of grooves over.
 */
function planeOffset(belt: Belt, section: Section, a: Pulley, b: Pulley): number {
  const apart = Math.abs((a.plane ?? 0) - (b.plane ?? 0));
  const ribbed = Number(a.surface === 'ribbed') + Number(b.surface === 'ribbed');
  if (section.kind !== 'ribbed' || ribbed === 0) return apart;
  if (ribbed === 1) return Math.max(0, apart - beltWidthMm(belt, section) / 2);
  const ribs = belt.ribs ?? 1;
  const spare = Math.max(0, (a.grooves ?? ribs) - ribs) + Math.max(0, (b.grooves ?? ribs) - ribs);
  const steps = Math.min(spare, Math.round(apart / section.width));
  return Math.abs(apart - steps * section.width);
}

/** Pairs of pulleys whose metal overlaps; one of each pair is on the belt. */
function overlaps(bodies: readonly Body[]): PathFinding[] {
  const findings: PathFinding[] = [];
  bodies.forEach((a, index) => {
    for (let k = index + 1; k < bodies.length; k += 1) {
      const b = bodies[k]!;
      if ((!a.own && !b.own) || a.station === b.station || a.station === null || b.station === null) continue;
      const overlap = a.radius + b.radius - distance(a, b);
      if (overlap > 1e-6)
        findings.push({
          code: 'circles-overlap',
          severity: a.spare || b.spare ? 'watch' : 'fault',
          pulley: a.id,
          other: b.id,
          figures: { overlapMm: overlap },
        });
    }
  });
  return findings;
}

/** What spans run through or brush, and where pieces of the belt rub on one another. */
function rubbing(section: Section, spans: Spans, contacts: Contacts, bodies: readonly Body[]): PathFinding[] {
  const ends = (index: number) => ({ from: spans[index]!.from, to: spans[index]!.to });
  return encounters(section, contacts, spans, bodies, NEAR_MM).flatMap(
    ({ span, contact, body, otherSpan, otherContact, mm, toMetal = Infinity }): PathFinding[] => {
      const at = span === undefined ? {} : { span: ends(span) };
      const on = contact === undefined ? {} : { other: contacts[contact]!.pulley };
      if (body?.station === null) {
        if (mm < 0)
          return [
            {
              code: 'hits-obstacle',
              severity: 'fault',
              obstacle: body.id,
              ...at,
              ...(on.other !== undefined && { pulley: on.other }),
              figures: { depthMm: -mm },
            },
          ];
        return [
          {
            code: 'near-obstacle',
            severity: 'watch',
            obstacle: body.id,
            ...at,
            ...(on.other !== undefined && { pulley: on.other }),
            figures: { clearanceMm: mm },
          },
        ];
      }
      if (mm >= -1e-6) return [];
      const rubs = { severity: 'watch', ...at, figures: { clearanceMm: mm } } as const;
      const strands = { code: 'strands-rub', ...rubs, figures: { clearanceMm: mm, rubMm: -mm } } as const;
      if (otherSpan !== undefined) return [{ ...strands, pulley: ends(otherSpan).from, other: ends(otherSpan).to }];
      if (span !== undefined && toMetal < -1e-6)
        return [
          {
            code: 'span-through-pulley',
            severity: body!.spare ? 'watch' : 'fault',
            pulley: body!.id,
            span: ends(span),
            figures: { depthMm: -toMetal },
          },
        ];
      return [
        {
          ...(otherContact === undefined ? ({ code: 'span-rubs', ...rubs } as const) : strands),
          pulley: body!.id,
          ...on,
        },
      ];
    },
  );
}

/** Spans of the belt that cross one another, and two turns of the belt on the same stretch of one pulley. */
export function crossings(contacts: Contacts, spans: Spans): PathFinding[] {
  const findings: PathFinding[] = [];
  spans.forEach((a, index) => {
    for (const b of spans.slice(index + 1)) {
      if (a.length === null || b.length === null || !segmentsCross(a.start, a.end, b.start, b.end)) continue;
      findings.push({
        code: 'crosses-itself',
        severity: 'fault',
        pulley: b.from,
        other: b.to,
        span: { from: a.from, to: a.to },
      });
    }
  });
  contacts.forEach((a, index) => {
    for (const b of contacts.slice(index + 1)) {
      if (a.pulley === b.pulley && arcsMeet(a, b))
        findings.push({ code: 'crosses-itself', severity: 'fault', pulley: a.pulley });
    }
  });
  return findings;
}

function arcsMeet(a: ContactSolution, b: ContactSolution): boolean {
  return (b.arrive !== null && holds(a, b.arrive)) || (a.arrive !== null && holds(b, a.arrive));
}
