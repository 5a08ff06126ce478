import { type Belt, type Drive, proposedSide, pulleysById } from '../drive';
import { bodyRadiusMm, cordRadiusMm, markedLengthMm, type Section, sectionFor } from '../section';
import { crossings, geometryFindings, materialFindings } from './checks';
import { blameTurns } from './closure';
import type { PathFinding } from './finding';
import { followShafts, turnOn } from './shafts';
import type { BeltSolution, ContactSolution, DriveSolution, SpanSolution } from './solution';
import { directedTangent, distance, type Tangent, wrapBetween } from './tangent';
import type { Workings } from './workings';
import { toDegrees } from '../numeric';

/** Beyond this many mm a size or a place is a slip, and squaring it would soon leave the numbers. */
const ABSURD_MM = 100_000;
/** Outside these a pulley is possible but more likely a reading in the wrong unit. */
const DOUBTFUL_MM = { least: 10, most: 1500 };

/**
 * Solves every belt of a drive. Never throws and never yields NaN on a drive that `readDrive` accepts: what cannot be
 * worked out is null, and a finding says why.
 */
export function solveDrive(drive: Drive): DriveSolution {
  const workings = prepare(drive);
  return { belts: drive.belts.map((belt) => solveOne(belt, workings)), findings: driveFindings(drive) };
}

/** Solves one belt of a drive, by id; null where the drive has no such belt. */
export function solveBelt(drive: Drive, beltId: string): BeltSolution | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  return belt ? solveOne(belt, prepare(drive)) : null;
}

/** The line of a belt alone: where it touches and runs, and what keeps it from being a loop. */
export type BeltPath = Pick<BeltSolution, 'contacts' | 'spans' | 'findings'>;

/**
 * The line of one belt, without looking at what it rubs on or how it suits its pulleys: for sums that ask for the
 * length of hundreds of paths. Null where the drive has no such belt.
 */
export function pathOf(drive: Drive, beltId: string): BeltPath | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  if (!belt) return null;
  const { contacts, spans, findings, blocked } = lineOf(belt, sectionOf(belt), prepare(drive));
  return { contacts, spans, findings: blocked ? findings : [...findings, ...crossings(contacts, spans)] };
}

function prepare(drive: Drive): Workings {
  const pulleys = pulleysById(drive);
  for (const { id, route } of drive.belts) {
    for (const { pulley } of route) {
      if (!pulleys.has(pulley))
        throw new Error(`belt ${id}: pulley ${pulley} is on no station; readDrive should have refused it`);
    }
  }
  return { drive, pulleys, shafts: followShafts(drive, pulleys) };
}

function sectionOf(belt: Belt): Section {
  const section = sectionFor(belt.section, belt.sectionOverrides);
  if (!section)
    throw new Error(`belt ${belt.id}: section ${belt.section} is unknown; readDrive should have refused it`);
  return section;
}

/** Contacts, spans and wraps of a belt; `blocked` where no line can be drawn. */
function lineOf(belt: Belt, section: Section, workings: Workings) {
  const sense = workings.shafts.senses.get(belt.id) ?? 1;
  const contacts = belt.route.map((stop) => contactOf(stop, section, sense, workings));
  const findings: PathFinding[] = routeFindings(belt, section, contacts, workings);
  const blocked = findings.some(({ severity }) => severity === 'fault');
  const tangents = blocked ? contacts.map(() => null) : tangentsOf(contacts);
  const spans = spansOf(contacts, tangents, findings, blocked);
  const turns = wrapContacts(contacts, tangents, sense);
  if (turns !== null && turns !== 1)
    findings.push(
      blameTurns(
        contacts,
        turns,
        sense,
        ({ pulley, side }) => proposedSide(workings.pulleys.get(pulley)!.pulley) !== side,
      ),
    );
  return { contacts, spans, findings, blocked, sense };
}

function solveOne(belt: Belt, workings: Workings): BeltSolution {
  const section = sectionOf(belt);
  const { contacts, spans, findings, blocked, sense } = lineOf(belt, section, workings);
  if (!blocked) findings.push(...geometryFindings(belt, section, contacts, spans, workings));
  const closed = !findings.some(({ severity }) => severity === 'fault');
  findings.push(
    ...(workings.shafts.findings.get(belt.id) ?? []),
    ...materialFindings(belt, section, contacts, spans, workings),
  );
  const cordLength = closed ? cordLengthOf(contacts, spans) : null;
  return {
    id: belt.id,
    closed,
    length: { basis: section.basis, mm: cordLength === null ? null : markedLengthMm(cordLength, section) },
    cordLength,
    cordPerTurn: workings.shafts.cordPerTurn.get(belt.id) ?? null,
    contacts,
    spans,
    findings: findings.sort((a, b) => RANK[a.severity] - RANK[b.severity]),
    sense,
  };
}

const RANK = { fault: 0, watch: 1, note: 2 };

function contactOf(stop: Belt['route'][number], section: Section, sense: 1 | -1, workings: Workings): ContactSolution {
  const placed = workings.pulleys.get(stop.pulley)!;
  const turn = turnOn(stop.side, sense);
  const ratio = workings.shafts.byStation.get(placed.station.id)?.ratio;
  return {
    pulley: stop.pulley,
    station: placed.station.id,
    side: stop.side,
    wrapDeg: null,
    rotation: turn === 1 ? 'ccw' : 'cw',
    speedRatio: ratio !== undefined && Number.isFinite(ratio) && ratio > 0 ? ratio : null,
    cordRadius: cordRadiusMm(placed.pulley, stop.side, section),
    arcLength: null,
    centre: { x: placed.station.x, y: placed.station.y },
    turn,
    arrive: null,
    leave: null,
  };
}

/** What stops the path before any line is drawn: too few pulleys, sizes and places that are none. */
function routeFindings(
  belt: Belt,
  section: Section,
  contacts: readonly ContactSolution[],
  { drive, pulleys, shafts }: Workings,
): PathFinding[] {
  const findings: PathFinding[] = [];
  if (contacts.length === 0) return [{ code: 'no-route', severity: 'fault' }];
  if (contacts.length === 1) findings.push({ code: 'one-pulley', severity: 'fault', pulley: contacts[0]!.pulley });
  const sized = new Set<string>();
  contacts.forEach((contact, index) => {
    const { pulley, cordRadius, centre } = contact;
    const next = contacts[(index + 1) % contacts.length]!;
    const diameter = 2 * bodyRadiusMm(pulleys.get(pulley)!.pulley, section);
    const far = Math.max(Math.abs(centre.x), Math.abs(centre.y), Math.abs(cordRadius), diameter);
    if (!sized.has(pulley)) {
      sized.add(pulley);
      if (!(far <= ABSURD_MM))
        findings.push({ code: 'absurd-size', severity: 'fault', pulley, figures: { mostMm: ABSURD_MM } });
      else if (!(diameter > 0 && cordRadius > 0))
        findings.push({ code: 'no-size', severity: 'fault', pulley, figures: { diameterMm: diameter } });
      else if (diameter < DOUBTFUL_MM.least || diameter > DOUBTFUL_MM.most) {
        findings.push({ code: 'doubtful-size', severity: 'watch', pulley, figures: { diameterMm: diameter } });
      }
    }
    if (contacts.length > 1 && next.pulley === pulley)
      findings.push({ code: 'pulley-twice', severity: 'fault', pulley });
    else if (contacts.length > 1 && distance(centre, next.centre) < 1e-6) {
      findings.push({
        code: 'same-centre',
        severity: 'fault',
        pulley,
        other: next.pulley,
        span: { from: pulley, to: next.pulley },
      });
    }
  });
  if (drive.stations.some(({ role }) => role === 'crankshaft') && !shafts.driven.has(belt.id))
    findings.push({ code: 'not-driven', severity: 'note' });
  return findings;
}

function tangentsOf(contacts: readonly ContactSolution[]): (Tangent | null)[] {
  return contacts.map((from, index) => {
    const to = contacts[(index + 1) % contacts.length]!;
    return directedTangent(from.centre, from.cordRadius, from.turn, to.centre, to.cordRadius, to.turn);
  });
}

function spansOf(
  contacts: readonly ContactSolution[],
  tangents: readonly (Tangent | null)[],
  findings: PathFinding[],
  blocked: boolean,
): SpanSolution[] {
  if (contacts.length < 2) return [];
  return contacts.map((from, index) => {
    const to = contacts[(index + 1) % contacts.length]!;
    const tangent = tangents[index];
    const ends = { from: from.pulley, to: to.pulley };
    if (tangent) return { ...ends, length: tangent.length, start: tangent.start, end: tangent.end };
    if (!blocked) {
      const room = distance(from.centre, to.centre);
      const needs = from.turn === to.turn ? Math.abs(from.cordRadius - to.cordRadius) : from.cordRadius + to.cordRadius;
      findings.push({
        code: 'no-room',
        severity: 'fault',
        pulley: from.pulley,
        other: to.pulley,
        span: ends,
        figures: { distanceMm: room, neededMm: needs },
      });
    }
    return { ...ends, length: null, start: from.centre, end: to.centre };
  });
}

/**
 * Gives each contact its wrap, 0 to just under a full turn, in its own direction. Returns the signed sum in turns of
 * the belt's own sense (1 for a belt that closes), or null while a span is missing.
 */
function wrapContacts(
  contacts: readonly ContactSolution[],
  tangents: readonly (Tangent | null)[],
  sense: 1 | -1,
): number | null {
  let sum = 0;
  let complete = contacts.length > 1;
  contacts.forEach((contact, index) => {
    const into = tangents[(index + contacts.length - 1) % contacts.length];
    const out = tangents[index];
    if (into) contact.arrive = into.end;
    if (out) contact.leave = out.start;
    if (!into || !out) {
      complete = false;
      return;
    }
    const wrap = wrapBetween(contact.turn, into.direction, out.direction);
    contact.wrapDeg = toDegrees(wrap);
    contact.arcLength = wrap * contact.cordRadius;
    sum += contact.turn * wrap;
  });
  return complete ? Math.round((sense * sum) / (2 * Math.PI)) : null;
}

function cordLengthOf(contacts: readonly ContactSolution[], spans: readonly SpanSolution[]): number {
  return (
    contacts.reduce((sum, { arcLength }) => sum + (arcLength ?? 0), 0) +
    spans.reduce((sum, { length }) => sum + (length ?? 0), 0)
  );
}

function driveFindings(drive: Drive): PathFinding[] {
  const cranks = drive.stations.filter(({ role }) => role === 'crankshaft');
  if (cranks.length === 0) return drive.stations.length === 0 ? [] : [{ code: 'no-crank', severity: 'note' }];
  return cranks
    .slice(1)
    .map((station) => ({ code: 'second-crank', severity: 'watch', pulley: station.pulleys[0]!.id }));
}
