import type { Belt, Pulley } from '../drive/types';
import { facingDepthMm, type Section } from '../section';
import { bodiesInPlane, clearOf, type Body } from './bodies';
import type { Finding } from './finding';
import type { BeltSolution, ContactSolution, SpanSolution } from './solution';
import type { Workings } from './solve';
import { distance, segmentsCross, type Point } from './tangent';
import { leastWrapDeg } from './wrap-limits';

type Contacts = BeltSolution['contacts'];
type Spans = BeltSolution['spans'];

/** Span angle between planes, degrees: up to `good` is nothing, above `wrong` a fault. Emery's defaults. */
const SPAN_ANGLE_DEG = { good: 0.5, wrong: 1 };

/** Where the belt cannot go: pulleys in one another, spans through pulleys, spans through spans. */
export function geometryFindings(belt: Belt, section: Section, contacts: Contacts, spans: Spans, workings: Workings): Finding[] {
  const bodies = bodiesInPlane(belt, section, contacts, workings);
  return [...overlaps(bodies), ...obstructions(section, spans, contacts, bodies), ...underWraps(section, contacts, bodies), ...crossings(contacts, spans)];
}

/** Closer than this to something fixed, a running belt that flaps may touch it, mm. Emery's default. */
const NEAR_MM = 3;

/** What a belt that goes round may still suffer from: faces, grooves, direction, wrap, planes. */
export function materialFindings(belt: Belt, section: Section, contacts: Contacts, spans: Spans, workings: Workings): Finding[] {
  const findings: Finding[] = [];
  for (const contact of contacts) {
    const { pulley, station } = workings.pulleys.get(contact.pulley)!;
    const at = { pulley: contact.pulley };
    const surface = surfaceFinding(pulley, contact, section, station.role === 'idler' || station.role === 'tensioner');
    if (surface) findings.push({ ...surface, ...at });
    if (station.requires && station.requires !== contact.rotation) {
      findings.push({ code: 'wrong-way-round', severity: 'fault', ...at, figures: { turns: contact.rotation, requires: station.requires } });
    }
    if (section.kind === 'ribbed' && contact.side === 'drive' && pulley.surface === 'ribbed') findings.push(...ribFindings(belt, pulley));
    const least = leastWrapDeg(station.role, section.kind);
    if (contact.wrapDeg !== null && contact.wrapDeg < least) {
      findings.push({ code: 'low-wrap', severity: 'watch', ...at, figures: { wrapDeg: contact.wrapDeg, leastDeg: least } });
    }
  }
  return [...findings, ...planeFindings(belt, section, spans, workings)];
}

function surfaceFinding(pulley: Pulley, { side }: ContactSolution, section: Section, guides: boolean): Finding | null {
  const wanted = section.kind === 'ribbed' ? 'ribbed' : section.kind === 'vee' ? 'vee' : 'toothed';
  const fits = side === 'back' ? pulley.surface === 'smooth' : pulley.surface === wanted;
  if (fits) return null;
  // A smooth roller on the drive side guides the belt and wears it; it transmits next to nothing, so only a guide may be one.
  const severity = side === 'drive' && pulley.surface === 'smooth' && guides ? 'watch' : 'fault';
  return { code: 'wrong-surface', severity, figures: { side, surface: pulley.surface, wanted: side === 'back' ? 'smooth' : wanted } };
}

function ribFindings(belt: Belt, pulley: Pulley): Finding[] {
  if (belt.ribs === undefined) return [];
  if (pulley.grooves === undefined) return [{ code: 'grooves-unknown', severity: 'note', pulley: pulley.id }];
  if (pulley.grooves >= belt.ribs) return [];
  return [{ code: 'rib-count', severity: 'fault', pulley: pulley.id, figures: { ribs: belt.ribs, grooves: pulley.grooves } }];
}

/** The offset between neighbouring planes as an angle of the span between them. */
function planeFindings(belt: Belt, section: Section, spans: Spans, workings: Workings): Finding[] {
  const planes = belt.route.map(({ pulley }) => workings.pulleys.get(pulley)!.pulley.plane ?? 0).sort((a, b) => a - b);
  const middle = planes[Math.floor(planes.length / 2)] ?? 0;
  const strays = (pulley: Pulley) => Math.abs((pulley.plane ?? 0) - middle);
  return spans.flatMap((span) => {
    if (span.length === null) return [];
    const from = workings.pulleys.get(span.from)!.pulley;
    const to = workings.pulleys.get(span.to)!.pulley;
    const offset = planeOffset(belt, section, from, to);
    const angle = (Math.atan2(offset, span.length) * 180) / Math.PI;
    if (angle <= SPAN_ANGLE_DEG.good) return [];
    return [{
      code: 'planes-apart',
      severity: angle > SPAN_ANGLE_DEG.wrong ? 'fault' : 'watch',
      pulley: strays(from) > strays(to) ? from.id : to.id,
      span: { from: span.from, to: span.to },
      figures: { offsetMm: offset, angleDeg: angle },
    } satisfies Finding];
  });
}

/**
 * How far the belt must shift between two pulleys, mm. A ribbed pulley's plane is its first groove and a smooth one's its
 * middle, so between the two the belt's own width is play; spare grooves let the belt sit any whole number of grooves over.
 */
function planeOffset(belt: Belt, section: Section, a: Pulley, b: Pulley): number {
  const apart = Math.abs((a.plane ?? 0) - (b.plane ?? 0));
  if (section.kind !== 'ribbed') return apart;
  const ribs = belt.ribs ?? 1;
  if (a.surface !== 'ribbed' || b.surface !== 'ribbed') return Math.max(0, apart - (ribs - 1) * section.width);
  const spare = Math.max(0, (a.grooves ?? ribs) - ribs) + Math.max(0, (b.grooves ?? ribs) - ribs);
  const steps = Math.min(spare, Math.round(apart / section.width));
  return Math.abs(apart - steps * section.width);
}

/** Pairs of pulleys whose metal overlaps; one of each pair is on the belt. */
function overlaps(bodies: readonly Body[]): Finding[] {
  const findings: Finding[] = [];
  bodies.forEach((a, index) => {
    for (let k = index + 1; k < bodies.length; k += 1) {
      const b = bodies[k]!;
      if ((!a.own && !b.own) || a.station === b.station || a.station === null || b.station === null) continue;
      const overlap = a.radius + b.radius - distance(a, b);
      if (overlap > 1e-6) findings.push({ code: 'circles-overlap', severity: 'fault', pulley: a.id, other: b.id, figures: { overlapMm: overlap } });
    }
  });
  return findings;
}

/** Spans that run through the metal of a pulley they do not touch, or brush it with the belt's own thickness. */
function obstructions(section: Section, spans: Spans, contacts: Contacts, bodies: readonly Body[]): Finding[] {
  const drivesLeft = contacts[0] && (contacts[0].side === 'drive') === (contacts[0].turn === 1);
  const findings: Finding[] = [];
  for (const span of spans) {
    if (span.length === null) continue;
    for (const body of bodies) {
      if (body.id === span.from || body.id === span.to) continue;
      const clear = clearOf(body, span.start, span.end);
      if (clear > section.thickness + NEAR_MM) continue;
      const depth = facingDepthMm(isLeft(span, body) === drivesLeft ? 'drive' : 'back', section);
      const at = { from: span.from, to: span.to };
      if (body.station === null) {
        if (clear < depth) findings.push({ code: 'hits-obstacle', severity: 'fault', obstacle: body.id, span: at, figures: { depthMm: depth - clear } });
        else if (clear < depth + NEAR_MM) findings.push({ code: 'near-obstacle', severity: 'watch', obstacle: body.id, span: at, figures: { clearanceMm: clear - depth } });
        continue;
      }
      if (clear >= depth - 1e-6) continue;
      const where = { pulley: body.id, span: at };
      if (clear < -1e-6) findings.push({ code: 'span-through-pulley', severity: 'fault', ...where, figures: { depthMm: -clear } });
      else findings.push({ code: 'span-rubs', severity: 'watch', ...where, figures: { clearanceMm: clear - depth } });
    }
  }
  return findings;
}

export function isLeft({ start, end }: SpanSolution, point: Point): boolean {
  return (end.x - start.x) * (point.y - start.y) - (end.y - start.y) * (point.x - start.x) > 0;
}

/** Obstacles that the belt meets while it lies on a pulley. */
function underWraps(section: Section, contacts: Contacts, bodies: readonly Body[]): Finding[] {
  const obstacles = bodies.filter(({ station }) => station === null);
  if (obstacles.length === 0) return [];
  return contacts.flatMap((contact) => {
    if (!contact.arrive || contact.wrapDeg === null) return [];
    const { centre, cordRadius, turn, wrapDeg, arrive, side } = contact;
    const from = Math.atan2(arrive.y - centre.y, arrive.x - centre.x);
    const steps = Math.max(1, Math.ceil(wrapDeg / 6));
    const at = (k: number): Point => {
      const angle = from + (turn * wrapDeg * Math.PI * k) / (180 * steps);
      return { x: centre.x + cordRadius * Math.cos(angle), y: centre.y + cordRadius * Math.sin(angle) };
    };
    // Away from the pulley the belt shows its other side.
    const depth = facingDepthMm(side === 'drive' ? 'back' : 'drive', section);
    return obstacles.flatMap((body): Finding[] => {
      const clear = Math.min(...Array.from({ length: steps }, (_, k) => clearOf(body, at(k), at(k + 1))));
      return clear < depth ? [{ code: 'hits-obstacle', severity: 'fault', obstacle: body.id, pulley: contact.pulley, figures: { depthMm: depth - clear } }] : [];
    });
  });
}

/** Spans of the belt that cross one another, and two turns of the belt on the same stretch of one pulley. */
function crossings(contacts: Contacts, spans: Spans): Finding[] {
  const findings: Finding[] = [];
  spans.forEach((a, index) => {
    for (const b of spans.slice(index + 1)) {
      if (a.length === null || b.length === null || !segmentsCross(a.start, a.end, b.start, b.end)) continue;
      findings.push({ code: 'crosses-itself', severity: 'fault', pulley: b.from, other: b.to, span: { from: a.from, to: a.to } });
    }
  });
  contacts.forEach((a, index) => {
    for (const b of contacts.slice(index + 1)) {
      if (a.pulley === b.pulley && arcsMeet(a, b)) findings.push({ code: 'crosses-itself', severity: 'fault', pulley: a.pulley });
    }
  });
  return findings;
}

function arcsMeet(a: ContactSolution, b: ContactSolution): boolean {
  const holds = (arc: ContactSolution, point: Point | null) => {
    if (!arc.arrive || !point || arc.wrapDeg === null) return false;
    const angle = (p: Point) => Math.atan2(p.y - arc.centre.y, p.x - arc.centre.x);
    const along = (((arc.turn * (angle(point) - angle(arc.arrive))) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    return (along * 180) / Math.PI < arc.wrapDeg;
  };
  return holds(a, b.arrive) || holds(b, a.arrive);
}
