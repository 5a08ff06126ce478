import type { Point } from '@emery/core/path';

export interface LabelWanted {
  id: string;
  /** Centre and radius of the pulley, screen px. */
  x: number;
  y: number;
  r: number;
  /** Radius that is free of the belt on it, where a label inside must stay. */
  free: number;
  width: number;
  height: number;
}

export interface LabelPlaced {
  id: string;
  /** Middle of the label, screen px. */
  x: number;
  y: number;
}

export interface LabelObstacles {
  circles: readonly { x: number; y: number; r: number }[];
  lines: readonly { start: Point; end: Point }[];
  width: number;
  height: number;
  /** Boxes that are taken by something else, by their middles: the buttons over the drawing. */
  reserved?: readonly { x: number; y: number; w: number; h: number }[];
}

const STEPS = 24;

/**
 * Places one label for each pulley: inside where it fits above the hub, otherwise beside it where it brushes the least
 * of belts, pulleys, other labels and the edge. Largest pulleys first, so that small ones, which have the fewest
 * places, know what is taken.
 */
export function placeLabels(
  wanted: readonly LabelWanted[],
  { circles, lines, width, height, reserved = [] }: LabelObstacles,
): LabelPlaced[] {
  const taken: { x: number; y: number; w: number; h: number }[] = [...reserved];
  return [...wanted]
    .sort((a, b) => b.r - a.r)
    .map((label) => {
      const spot = fitsInside(label, lines) ?? beside(label, circles, lines, taken, width, height);
      taken.push({ ...spot, w: label.width, h: label.height });
      return { id: label.id, ...spot };
    });
}

/** Above the hub, with its upper corners inside the rim. */
function fitsInside({ x, y, free, width, height }: LabelWanted, lines: LabelObstacles['lines']): Point | null {
  const middle = y - 7 - height / 2;
  if (Math.hypot(width / 2, 7 + height) > free - 2) return null;
  return lines.some(({ start, end }) => brushes({ x, y: middle, w: width, h: height }, start, end))
    ? null
    : { x, y: middle };
}

function beside(
  { x, y, r, width, height }: LabelWanted,
  circles: LabelObstacles['circles'],
  lines: LabelObstacles['lines'],
  taken: readonly { x: number; y: number; w: number; h: number }[],
  viewWidth: number,
  viewHeight: number,
): Point {
  let best: Point = { x, y };
  let least = Infinity;
  for (const gap of [10, 22, 38]) {
    for (let step = 0; step < STEPS; step += 1) {
      const angle = (2 * Math.PI * step) / STEPS;
      const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
      // Far enough out that the box clears the rim in this direction.
      const reach = r + gap + (Math.abs(ux) * width + Math.abs(uy) * height) / 2;
      const box = { x: x + ux * reach, y: y + uy * reach, w: width, h: height };
      const cost =
        gap * 0.2 +
        // Above reads most easily as belonging to the pulley below it.
        (uy + 1) * 1.5 +
        60 * lines.filter(({ start, end }) => brushes(box, start, end)).length +
        80 * circles.filter((circle) => boxDistance(box, circle) < circle.r + 3).length +
        90 *
          taken.filter(
            (other) =>
              Math.abs(other.x - box.x) < (other.w + box.w) / 2 && Math.abs(other.y - box.y) < (other.h + box.h) / 2,
          ).length +
        120 *
          Number(
            box.x - box.w / 2 < 4 ||
              box.x + box.w / 2 > viewWidth - 4 ||
              box.y - box.h / 2 < 4 ||
              box.y + box.h / 2 > viewHeight - 4,
          );
      if (cost < least) {
        least = cost;
        best = { x: box.x, y: box.y };
      }
    }
  }
  return best;
}

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

function boxDistance(box: Box, point: Point): number {
  return Math.hypot(
    Math.max(0, Math.abs(point.x - box.x) - box.w / 2),
    Math.max(0, Math.abs(point.y - box.y) - box.h / 2),
  );
}

/**
 * True where a line comes within a few px of the box: the segment clipped to the box with a margin, axis by axis
 * (Liang–Barsky).
 */
function brushes(box: Box, start: Point, end: Point, margin = 6): boolean {
  let enter = 0;
  let leave = 1;
  const clip = (from: number, delta: number, low: number, high: number) => {
    if (delta === 0) return from >= low && from <= high;
    const [a, b] = [(low - from) / delta, (high - from) / delta];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
    return enter <= leave;
  };
  return (
    clip(start.x, end.x - start.x, box.x - box.w / 2 - margin, box.x + box.w / 2 + margin) &&
    clip(start.y, end.y - start.y, box.y - box.h / 2 - margin, box.y + box.h / 2 + margin)
  );
}
