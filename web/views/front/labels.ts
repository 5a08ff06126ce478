import { freeGround, type IsFree } from './free-ground';
import type { Point } from '@emery/core/path';

export interface LabelWanted {
  id: string;
  /** Centre and radius of the pulley, screen px. */
  x: number;
  y: number;
  r: number;
  /** Radius that is free of the belt on it, where a label inside must stay. */
  free: number;
  /** How large it is, px: in full first, then in shorter forms for where there is no room for that. */
  forms: readonly { width: number; height: number }[];
}

export interface Segment {
  start: Point;
  end: Point;
}

export interface LabelPlaced {
  id: string;
  /** Middle of the label, screen px, and which of its forms it has. */
  x: number;
  y: number;
  form: number;
  /** From the label to its pulley, where it stands too far from it to be taken for its own. */
  leader?: Segment;
}

export interface LabelObstacles {
  circles: readonly { x: number; y: number; r: number }[];
  lines: readonly Segment[];
  width: number;
  height: number;
  /** Boxes that are taken by something else, by their middles: buttons over the drawing, figures on it. */
  reserved?: readonly Box[];
}

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** What labels keep off, of those that are placed as well. */
interface Ground extends LabelObstacles {
  taken: Box[];
  leaders: Segment[];
  /** Made once it is asked for: most drives have no label with a leader. */
  isFree?: IsFree;
}

const STEPS = 32;
/** From the rim to a label beside it, px: nearest first. */
const GAPS = [5, 10, 17, 26, 38] as const;
/** A label is nearer to its own pulley than to any other by this much, px. */
const NEARER = 5;
/** Between two labels side by side, px: closer they read as one. */
const BETWEEN = 10;
/** From the edge of the view, and from a rim, px. */
const [EDGE, RIM] = [3, 3];
/** From a line, px. */
const BRUSH = 6;
/** A label with a leader line is looked for in steps of this, and no further from its pulley, px. */
const [GRID, FARTHEST] = [9, 260];
/** A leader that crosses a belt is as bad as one that is longer by this, px. */
const CROSSING = 24;

interface Spot extends Point {
  leader?: Segment;
}

/** A label in one of its forms. */
interface Sized {
  id: string;
  x: number;
  y: number;
  r: number;
  free: number;
  w: number;
  h: number;
}

/**
 * Places one label for each pulley: inside where it fits above the hub, else beside it where it is nearer to it than to
 * any other and lies on nothing, else in the nearest free ground with a leader line, else in a shorter form in the same
 * ways. What finds no place at all is left out: no name is better than one that is taken for another's. Those with the
 * fewest places choose first.
 */
export function placeLabels(wanted: readonly LabelWanted[], obstacles: LabelObstacles): LabelPlaced[] {
  const ground: Ground = { ...obstacles, taken: [...(obstacles.reserved ?? [])], leaders: [] };
  const placed = new Map<string, LabelPlaced>();
  const forms = Math.max(0, ...wanted.map((label) => label.forms.length));
  for (let form = 0; form < forms && placed.size < wanted.length; form += 1) {
    const left = wanted.flatMap(({ id, x, y, r, free, forms }): Sized[] => {
      const size = forms[form];
      return size && !placed.has(id) ? [{ id, x, y, r, free, w: size.width, h: size.height }] : [];
    });
    const put = (label: Sized, spot: Spot | null | undefined) => {
      if (!spot) return;
      ground.taken.push({ x: spot.x, y: spot.y, w: label.w, h: label.h });
      if (spot.leader) ground.leaders.push(spot.leader);
      placed.set(label.id, { id: label.id, form, ...spot });
    };
    for (const label of left) put(label, inside(label, ground));
    const beside = left
      .filter(({ id }) => !placed.has(id))
      .map((label) => ({ label, spots: spotsBeside(label, ground) }))
      .sort((a, b) => a.spots.length - b.spots.length);
    for (const { label, spots } of beside)
      put(
        label,
        spots.find((spot) => !meets({ ...spot, w: label.w, h: label.h }, ground)),
      );
    for (const { label } of beside) if (!placed.has(label.id)) put(label, withLeader(label, ground));
  }
  return wanted.flatMap(({ id }) => placed.get(id) ?? []);
}

/** Above the hub, with its upper corners inside the rim, where no belt and no other pulley crosses it. */
function inside(label: Sized, ground: Ground): Spot | null {
  const { x, y, free, w, h } = label;
  const box = { x, y: y - 7 - h / 2, w, h };
  if (Math.hypot(w / 2, 7 + h) > free - 2 || outOfView(box, ground)) return null;
  const crossed = ground.lines.some(({ start, end }) => brushes(box, start, end));
  if (crossed || ground.taken.some((other) => overlaps(box, other))) return null;
  return ground.circles.some((circle) => !isOwn(circle, label) && clearOf(box, circle) < RIM) ? null : { x, y: box.y };
}

/** All places beside its pulley where it lies on nothing that is there for good, the best first. */
function spotsBeside(label: Sized, ground: Ground): Spot[] {
  const { x, y, r, w, h } = label;
  const spots: { spot: Spot; cost: number }[] = [];
  for (const gap of GAPS)
    for (let step = 0; step < STEPS; step += 1) {
      const angle = (2 * Math.PI * step) / STEPS;
      const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
      // Far enough out that the box clears the rim in this direction.
      const reach = r + gap + (Math.abs(ux) * w + Math.abs(uy) * h) / 2;
      const box = { x: x + ux * reach, y: y + uy * reach, w, h };
      const own = clearOf(box, label);
      if (outOfView(box, ground) || own < RIM) continue;
      const near = ground.circles.some((circle) => !isOwn(circle, label) && clearOf(box, circle) < own + NEARER);
      if (near || ground.lines.some(({ start, end }) => brushes(box, start, end))) continue;
      // Above reads most easily as belonging to the pulley below it.
      spots.push({ spot: { x: box.x, y: box.y }, cost: own * 0.4 + (uy + 1) * 1.5 });
    }
  return spots.sort((a, b) => a.cost - b.cost).map(({ spot }) => spot);
}

/** The free ground nearest to the pulley, with a line to its rim that passes no other pulley and no other label. */
function withLeader(label: Sized, ground: Ground): Spot | null {
  const { x, y, r, w, h } = label;
  ground.isFree ??= freeGround(ground, RIM, BRUSH);
  const xs = outward(w / 2 + EDGE, ground.width - w / 2 - EDGE, x);
  const ys = outward(h / 2 + EDGE, ground.height - h / 2 - EDGE, y);
  let best: Spot | null = null;
  let cheapest = FARTHEST;
  for (const bx of xs) {
    // All that follow are further away still.
    if (Math.abs(bx - x) - w / 2 - r >= cheapest) break;
    for (const by of ys) {
      if (Math.abs(by - y) - h / 2 - r >= cheapest) break;
      const box = { x: bx, y: by, w, h };
      const away = clearOf(box, label);
      if (away < RIM || away >= cheapest || !ground.isFree(box) || meets(box, ground)) continue;
      const leader = leaderOf(box, label);
      const cost = away + CROSSING * ground.lines.filter((line) => cross(leader, line)).length;
      if (cost >= cheapest || !passes(leader, label, ground)) continue;
      cheapest = cost;
      best = { x: bx, y: by, leader };
    }
  }
  return best;
}

/** The steps of the grid between two places, the one nearest to a third first. */
function outward(from: number, to: number, middle: number): number[] {
  const steps = Array.from({ length: Math.max(0, Math.floor((to - from) / GRID) + 1) }, (_, k) => from + k * GRID);
  return steps.sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle));
}

/** From the side of a label well into the rim of its pulley, where it is on this pulley and on no belt. */
function leaderOf({ x: bx, y: by, w, h }: Box, { x, y, r }: Sized): Segment {
  const start = { x: clamp(x, bx - w / 2, bx + w / 2), y: clamp(y, by - h / 2, by + h / 2) };
  const length = Math.hypot(x - start.x, y - start.y);
  const share = (length - Math.max(r * 0.55, r - 14)) / length;
  return { start, end: { x: start.x + share * (x - start.x), y: start.y + share * (y - start.y) } };
}

const passes = (leader: Segment, label: Sized, { circles, taken, leaders }: Ground): boolean =>
  circles.every((circle) => isOwn(circle, label) || distanceTo(leader, circle) > circle.r + 1) &&
  taken.every((box) => !brushes(box, leader.start, leader.end, 2)) &&
  leaders.every((other) => !cross(leader, other));

/** On another label, or on a line that leads to one. */
const meets = (box: Box, { taken, leaders }: Ground): boolean =>
  taken.some((other) => overlaps(box, other)) || leaders.some(({ start, end }) => brushes(box, start, end, 3));

const isOwn = (circle: Point, label: Point): boolean => circle.x === label.x && circle.y === label.y;

const clamp = (value: number, low: number, high: number): number => Math.max(low, Math.min(high, value));

const outOfView = ({ x, y, w, h }: Box, { width, height }: LabelObstacles): boolean =>
  x - w / 2 < EDGE || x + w / 2 > width - EDGE || y - h / 2 < EDGE || y + h / 2 > height - EDGE;

function overlaps(a: Box, b: Box): boolean {
  return Math.abs(b.x - a.x) < (b.w + a.w) / 2 + BETWEEN && Math.abs(b.y - a.y) < (b.h + a.h) / 2 + 1;
}

/** From the box to the rim of a circle, px; below nought where they meet. */
function clearOf(box: Box, { x, y, r }: Point & { r: number }): number {
  const across = Math.max(0, Math.abs(x - box.x) - box.w / 2);
  return Math.hypot(across, Math.max(0, Math.abs(y - box.y) - box.h / 2)) - r;
}

/** From a point to a segment. */
function distanceTo({ start, end }: Segment, { x, y }: Point): number {
  const [dx, dy] = [end.x - start.x, end.y - start.y];
  const along = dx * dx + dy * dy;
  const t = along === 0 ? 0 : clamp(((x - start.x) * dx + (y - start.y) * dy) / along, 0, 1);
  return Math.hypot(x - start.x - t * dx, y - start.y - t * dy);
}

/** True where two segments cross: the ends of each lie on either side of the other. */
function cross(a: Segment, b: Segment): boolean {
  const side = ({ start, end }: Segment, { x, y }: Point) =>
    Math.sign((end.x - start.x) * (y - start.y) - (end.y - start.y) * (x - start.x));
  return side(a, b.start) * side(a, b.end) < 0 && side(b, a.start) * side(b, a.end) < 0;
}

/**
 * True where a line comes within a few px of the box: the segment clipped to the box with a margin, axis by axis
 * (Liang–Barsky).
 */
function brushes(box: Box, start: Point, end: Point, margin = BRUSH): boolean {
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
