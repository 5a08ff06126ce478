import type { PlacedPulley } from '../drive/look-up';
import type { Belt, Drive, Pulley } from '../drive/types';
import { beltWidthMm, bodyRadiusMm, facingDepthMm, sectionFor, type Section } from '../section';
import type { Finding } from './finding';
import type { BeltSolution, ContactSolution, SpanSolution } from './solution';
import type { Workings } from './solve';
import { distance, distanceToSegment, segmentsCross, type Point } from './tangent';
import { leastWrapDeg } from './wrap-limits';

type Contacts = BeltSolution['contacts'];
type Spans = BeltSolution['spans'];

/** Grooves are this far apart whatever belt looks at them, mm (ISO 9981). */
const RIB_PITCH = sectionFor('PK')!.width;

/** Span angle between planes, degrees: up to `good` is nothing, above `wrong` a fault. Emery's defaults. */
const SPAN_ANGLE_DEG = { good: 0.5, wrong: 1 };

/** Where the belt cannot go: pulleys in one another, spans through pulleys, spans through spans. */
export function geometryFindings(belt: Belt, section: Section, contacts: Contacts, spans: Spans, workings: Workings): Finding[] {
  const bodies = inPlane(belt, section, contacts, workings);
  return [...overlaps(bodies), ...obstructions(section, spans, contacts, bodies), ...crossings(contacts, spans)];
}

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

/** A pulley's metal in the belt's plane. */
interface Body {
  id: string;
  station: string;
  x: number;
  y: number;
  radius: number;
  /** True for a pulley the belt runs on. */
  own: boolean;
}

/** Pulleys that stand in the belt's plane: those it runs on, and those of other shafts that are as far from the engine. */
function inPlane(belt: Belt, section: Section, contacts: Contacts, { pulleys, drive }: Workings): Body[] {
  const own = new Set(contacts.map(({ pulley }) => pulley));
  const ownStations = new Set(contacts.map(({ station }) => station));
  const bodies: Body[] = [];
  for (const id of own) bodies.push(bodyOf(pulleys.get(id)!, section, true));
  if (pulleys.size === own.size) return bodies;
  const route = [...own].map((id) => pulleys.get(id)!.pulley);
  for (const placed of pulleys.values()) {
    const { pulley, station } = placed;
    if (own.has(pulley.id) || ownStations.has(station.id)) continue;
    const body = bodyOf(placed, ridingSection(pulley, drive), false);
    if (body.radius > 0 && route.some((on) => sharePlane(belt, section, on, pulley))) bodies.push(body);
  }
  return bodies;
}

function bodyOf({ pulley, station }: PlacedPulley, section: Section | null, own: boolean): Body {
  return { id: pulley.id, station: station.id, x: station.x, y: station.y, radius: bodyRadiusMm(pulley, section), own };
}

/** True where the belt on one pulley and the body of another take up the same axial space, whichever end grooves are counted from. */
function sharePlane(belt: Belt, section: Section, on: Pulley, other: Pulley): boolean {
  const width = beltWidthMm(belt, section) || section.thickness;
  const otherWidth = other.surface === 'ribbed' ? (other.grooves ?? belt.ribs ?? 1) * RIB_PITCH : width;
  const fromEdge = (pulley: Pulley) => pulley.surface === 'ribbed';
  const apart = Math.abs((on.plane ?? 0) - (other.plane ?? 0));
  if (fromEdge(on) && fromEdge(other)) return apart < Math.min(width, otherWidth);
  return apart < (width + otherWidth) / 2;
}

function ridingSection(pulley: Pulley, drive: Drive): Section | null {
  const belt = drive.belts.find(({ route }) => route.some((stop) => stop.pulley === pulley.id));
  return belt ? sectionFor(belt.section, belt.sectionOverrides) : null;
}

/** Pairs of pulleys whose metal overlaps; one of each pair is on the belt. */
function overlaps(bodies: readonly Body[]): Finding[] {
  const findings: Finding[] = [];
  bodies.forEach((a, index) => {
    for (let k = index + 1; k < bodies.length; k += 1) {
      const b = bodies[k]!;
      if ((!a.own && !b.own) || a.station === b.station) continue;
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
      const clear = distanceToSegment(body, span.start, span.end) - body.radius;
      if (clear > section.thickness) continue;
      const depth = facingDepthMm(isLeft(span, body) === drivesLeft ? 'drive' : 'back', section);
      if (clear >= depth - 1e-6) continue;
      const where = { pulley: body.id, span: { from: span.from, to: span.to } };
      if (clear < -1e-6) findings.push({ code: 'span-through-pulley', severity: 'fault', ...where, figures: { depthMm: -clear } });
      else findings.push({ code: 'span-rubs', severity: 'watch', ...where, figures: { clearanceMm: clear - depth } });
    }
  }
  return findings;
}

function isLeft({ start, end }: SpanSolution, point: Point): boolean {
  return (end.x - start.x) * (point.y - start.y) - (end.y - start.y) * (point.x - start.x) > 0;
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
