import type { Belt, Drive, PlacedPulley, Pulley } from '../drive';
import { beltWidthMm, bodyRadiusMm, type Section, sectionFor } from '../section';
import type { ContactSolution } from './solution';
import { distanceToSegment, nearestOfSegments, type Point } from './tangent';
import type { Workings } from './workings';

/** Where no ribbed belt looks at them, grooves are this far apart, mm (ISO 9981). */
const RIB_PITCH = sectionFor('PK')!.width;

/** Metal in the belt's plane: a pulley, or an obstacle, which may be as long as from its place to `to`. */
export interface Body {
  id: string;
  /** The pulley's shaft; null for an obstacle. */
  station: string | null;
  x: number;
  y: number;
  radius: number;
  /** True for a pulley the belt runs on. */
  own: boolean;
  /** Of a part that may be left out and is on no belt: nobody knows whether it stands there at all. */
  spare: boolean;
  to?: Point;
}

/**
 * What stands in the belt's plane: the pulleys it runs on, those of other shafts that are as far from the engine, and
 * obstacles.
 */
export function bodiesInPlane(
  belt: Belt,
  section: Section,
  contacts: readonly Pick<ContactSolution, 'pulley' | 'station'>[],
  { pulleys, drive }: Pick<Workings, 'pulleys' | 'drive'>,
): Body[] {
  const own = new Set(contacts.map(({ pulley }) => pulley));
  const ownStations = new Set(contacts.map(({ station }) => station));
  const bodies: Body[] = [];
  for (const id of own) bodies.push(bodyOf(pulleys.get(id)!, section, true));
  const route = [...own].map((id) => pulleys.get(id)!.pulley);
  for (const { id, x, y, diameter, plane, to } of drive.obstacles ?? []) {
    const reach = (beltWidthMm(belt, section) || section.thickness) / 2;
    if (plane === undefined || route.some((on) => Math.abs((on.plane ?? 0) - plane) < reach))
      bodies.push({ id, station: null, x, y, radius: diameter / 2, own: false, spare: false, ...(to && { to }) });
  }
  const onBelts = new Set(drive.belts.flatMap(({ route: stops }) => stops.map((stop) => stop.pulley)));
  for (const placed of pulleys.values()) {
    const { pulley, station } = placed;
    if (own.has(pulley.id) || ownStations.has(station.id)) continue;
    const body = bodyOf(placed, ridingSection(pulley, drive), false);
    body.spare = station.optional === true && station.pulleys.every(({ id }) => !onBelts.has(id));
    if (body.radius > 0 && route.some((on) => sharePlane(belt, section, on, pulley))) bodies.push(body);
  }
  return bodies;
}

function bodyOf({ pulley, station }: PlacedPulley, section: Section | null, own: boolean): Body {
  return {
    id: pulley.id,
    station: station.id,
    x: station.x,
    y: station.y,
    radius: bodyRadiusMm(pulley, section),
    own,
    spare: false,
  };
}

/**
 * True where the belt on one pulley and the body of another take up the same axial space, whichever end grooves are
 * counted from.
 */
function sharePlane(belt: Belt, section: Section, on: Pulley, other: Pulley): boolean {
  const width = beltWidthMm(belt, section) || section.thickness;
  const otherWidth =
    other.surface === 'ribbed'
      ? (other.grooves ?? belt.ribs ?? 1) * (section.kind === 'ribbed' ? section.width : RIB_PITCH)
      : width;
  const fromEdge = (pulley: Pulley) => pulley.surface === 'ribbed';
  const apart = Math.abs((on.plane ?? 0) - (other.plane ?? 0));
  if (fromEdge(on) && fromEdge(other)) return apart < Math.min(width, otherWidth);
  return apart < (width + otherWidth) / 2;
}

function ridingSection(pulley: Pulley, drive: Drive): Section | null {
  const belt = drive.belts.find(({ route }) => route.some((stop) => stop.pulley === pulley.id));
  return belt ? sectionFor(belt.section, belt.sectionOverrides) : null;
}

/** From a straight piece of cord to the metal, mm; below zero inside it. */
export function clearOf(body: Body, start: Point, end: Point): number {
  return (
    (body.to ? nearestOfSegments(start, end, body, body.to).mm : distanceToSegment(body, start, end)) - body.radius
  );
}
