import type { Drive } from '../drive';
import { bodyRadiusMm, sectionFor } from '../section';
import type { BeltSolution, ContactSolution } from './solution';
import type { Point } from './tangent';
import { headingDeg } from '../numeric';

export interface Bounds {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/**
 * A belt as an SVG path, y down, in mm: the line parallel to its cord at `offset` mm toward its drive side. A span that
 * no belt can follow is drawn from centre to centre, so that an impossible route still shows.
 */
export function beltOutline(belt: BeltSolution, offset = 0): string {
  if (belt.contacts.length < 2) return '';
  const parts: string[] = [];
  belt.contacts.forEach((contact, index) => {
    const span = belt.spans[index]!;
    const before = belt.spans[(index + belt.spans.length - 1) % belt.spans.length]!;
    const radius = contact.side === 'drive' ? contact.cordRadius - offset : contact.cordRadius + offset;
    const enter = shifted(contact, contact.arrive ?? before.end, radius);
    const exit = shifted(contact, contact.leave ?? span.start, radius);
    parts.push(`${index === 0 ? 'M' : 'L'}${xy(enter)}`);
    if (contact.arrive && contact.leave && (contact.wrapDeg ?? 0) > 0) parts.push(arc(contact, enter, exit, radius));
    else parts.push(`L${xy(exit)}`);
  });
  return `${parts.join('')}Z`;
}

/** The middle of every free span with its direction in degrees, y up: where travel arrows and span figures go. */
export function spanMidpoints(
  belt: BeltSolution,
): { from: string; to: string; x: number; y: number; directionDeg: number; length: number }[] {
  return belt.spans.flatMap(({ from, to, length, start, end }) =>
    length === null
      ? []
      : [
          {
            from,
            to,
            length,
            x: (start.x + end.x) / 2,
            y: (start.y + end.y) / 2,
            directionDeg: headingDeg(end.x - start.x, end.y - start.y),
          },
        ],
  );
}

/** What a drawing of the drive must hold, y up, mm: every pulley, with room for a belt round it. */
export function beltBounds(drive: Drive, margin = 12): Bounds {
  const bounds: Bounds = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  const sections = new Map(
    drive.belts.flatMap(({ route, section, sectionOverrides }) =>
      route.map(({ pulley }) => [pulley, sectionFor(section, sectionOverrides)] as const),
    ),
  );
  // Teeth that no belt is on yet are taken for those of the first toothed belt, or of a common pitch.
  const unridden =
    drive.belts.map(({ section }) => sectionFor(section)).find((section) => section?.kind === 'toothed') ??
    sectionFor('L');
  for (const { x, y, pulleys } of drive.stations) {
    const radius = Math.max(8, ...pulleys.map((pulley) => bodyRadiusMm(pulley, sections.get(pulley.id) ?? unridden)));
    bounds.minX = Math.min(bounds.minX, x - radius - margin);
    bounds.maxX = Math.max(bounds.maxX, x + radius + margin);
    bounds.minY = Math.min(bounds.minY, y - radius - margin);
    bounds.maxY = Math.max(bounds.maxY, y + radius + margin);
  }
  return Number.isFinite(bounds.minX) ? bounds : { minX: -200, minY: -150, maxX: 200, maxY: 250 };
}

function shifted({ centre, cordRadius }: ContactSolution, point: Point, radius: number): Point {
  if (cordRadius <= 0) return point;
  const scale = radius / cordRadius;
  return { x: centre.x + (point.x - centre.x) * scale, y: centre.y + (point.y - centre.y) * scale };
}

/** In two halves, so that an arc near a full turn stays one. Counter-clockwise with y up is sweep 0 with y down. */
function arc({ centre, turn, wrapDeg }: ContactSolution, enter: Point, exit: Point, radius: number): string {
  const half = Math.atan2(enter.y - centre.y, enter.x - centre.x) + (turn * (wrapDeg ?? 0) * Math.PI) / 360;
  const middle = { x: centre.x + radius * Math.cos(half), y: centre.y + radius * Math.sin(half) };
  const sweep = turn === 1 ? 0 : 1;
  return [middle, exit].map((to) => `A${num(radius)} ${num(radius)} 0 0 ${sweep} ${xy(to)}`).join('');
}

function xy({ x, y }: Point): string {
  return `${num(x)} ${num(-y)}`;
}

function num(value: number): string {
  return String(Math.round(value * 1000) / 1000 || 0);
}
