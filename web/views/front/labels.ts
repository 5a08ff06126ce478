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
/** A label is nearer to its own pulley than to any other by this much, px, where there is room. */
const NEARER = 6;
/** Between two labels side by side, px: closer they read as one. */
const BETWEEN = 10;

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
  let min = Infinity;
  for (const gap of [10, 22, 38]) {
    for (let step = 0; step < STEPS; step += 1) {
      const angle = (2 * Math.PI * step) / STEPS;
      const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
      // Far enough out that the box clears the rim in this direction.
      const reach = r + gap + (Math.abs(ux) * width + Math.abs(uy) * height) / 2;
      const box = { x: x + ux * reach, y: y + uy * reach, w: width, h: height };
      // Above reads most easily as belonging to the pulley below it.
      let cost = gap * 0.2 + (uy + 1) * 1.5;
      const outside =
        box.x - width / 2 < 4 ||
        box.x + width / 2 > viewWidth - 4 ||
        box.y - height / 2 < 4 ||
        box.y + height / 2 > viewHeight - 4;
      if (outside) cost += 120;
      // Nothing that comes on top can make a worse place the best.
      for (let n = 0; n < taken.length && cost < min; n += 1) if (overlaps(box, taken[n]!)) cost += 200;
      // A label as near to another pulley as to its own could belong to either.
      const own = boxDistance(box, { x, y }) - r;
      for (let n = 0; n < circles.length && cost < min; n += 1) {
        const clear = boxDistance(box, circles[n]!) - circles[n]!.r;
        if (clear < 3) cost += 80;
        else if (clear < own + NEARER && !(circles[n]!.x === x && circles[n]!.y === y)) cost += 45;
      }
      for (let n = 0; n < lines.length && cost < min; n += 1)
        if (brushes(box, lines[n]!.start, lines[n]!.end)) cost += 60;
      if (cost < min) {
        min = cost;
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

function overlaps(a: Box, b: Box): boolean {
  return Math.abs(b.x - a.x) < (b.w + a.w) / 2 + BETWEEN && Math.abs(b.y - a.y) < (b.h + a.h) / 2;
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
  const [reachX, reachY] = [box.w / 2 + margin, box.h / 2 + margin];
  const [dx, dy] = [end.x - start.x, end.y - start.y];
  const [x, y] = [start.x - box.x, start.y - box.y];
  let [enter, leave] = [0, 1];
  if (dx === 0) {
    if (Math.abs(x) > reachX) return false;
  } else {
    const [a, b] = [(-reachX - x) / dx, (reachX - x) / dx];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
    if (enter > leave) return false;
  }
  if (dy === 0) return Math.abs(y) <= reachY;
  const [a, b] = [(-reachY - y) / dy, (reachY - y) / dy];
  return Math.max(enter, Math.min(a, b)) <= Math.min(leave, Math.max(a, b));
}
