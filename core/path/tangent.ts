/** A point in the front view, mm: x right, y up. */
export interface Point {
  x: number;
  y: number;
}

export interface Tangent {
  start: Point;
  end: Point;
  length: number;
  /** Direction of travel, radians counter-clockwise from +x. */
  direction: number;
}

/**
 * The one directed line that leaves a circle turning `turnA` and arrives at a circle turning `turnB` (+1
 * counter-clockwise, the circle to the left of the belt). With left normal n the touching points are c − turn·r·n, so
 * the line's direction u satisfies D·n = turnB·rB − turnA·rA for the centre distance D. Returns null where there is no
 * such line: the circles overlap, or one lies inside the other.
 */
export function directedTangent(
  a: Point,
  radiusA: number,
  turnA: 1 | -1,
  b: Point,
  radiusB: number,
  turnB: 1 | -1,
): Tangent | null {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const across = turnB * radiusB - turnA * radiusA;
  const squared = dx * dx + dy * dy - across * across;
  if (!(squared > 0)) return null;
  const length = Math.sqrt(squared);
  const direction = Math.atan2(dy, dx) - Math.atan2(across, length);
  const nx = -Math.sin(direction);
  const ny = Math.cos(direction);
  return {
    start: { x: a.x - turnA * radiusA * nx, y: a.y - turnA * radiusA * ny },
    end: { x: b.x - turnB * radiusB * nx, y: b.y - turnB * radiusB * ny },
    length,
    direction,
  };
}

/** A wrap this close to a full turn, radians, is a straight pass seen through rounding. */
const ROUNDING = 1e-9;

/** Radians a belt bends in its own direction `turn` between two directions of travel: 0 to just under a full turn. */
export function wrapBetween(turn: 1 | -1, into: number, out: number): number {
  const full = 2 * Math.PI;
  const wrap = (((turn * (out - into)) % full) + full) % full;
  return full - wrap < ROUNDING ? 0 : wrap;
}

export function distance(a: Point, b: Point): number {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  // Math.hypot guards against overflow that the size limits rule out, and costs several times as much.
  return Math.sqrt(dx * dx + dy * dy);
}

/** Distance from a point to a segment, mm. */
export function distanceToSegment(point: Point, start: Point, end: Point): number {
  const dx = end.x - start.x;
  const dy = end.y - start.y;
  const squared = dx * dx + dy * dy;
  const along =
    squared === 0 ? 0 : Math.min(1, Math.max(0, ((point.x - start.x) * dx + (point.y - start.y) * dy) / squared));
  const offX = point.x - start.x - along * dx;
  const offY = point.y - start.y - along * dy;
  return Math.sqrt(offX * offX + offY * offY);
}

/** True where two segments cross at a point inside both. Touching ends do not count. */
export function segmentsCross(a: Point, b: Point, c: Point, d: Point): boolean {
  // Most pairs of spans are far apart; their boxes tell at once.
  if (boxesApart(a, b, c, d, 0)) return false;
  const min = 1e-9 * Math.max(distance(a, b) * distance(c, d), 1e-12);
  return opposite(side(c, d, a), side(c, d, b), min) && opposite(side(a, b, c), side(a, b, d), min);
}

/** True where the upright boxes round two straight pieces are further apart than `by` mm, and so the pieces too. */
export function boxesApart(a: Point, b: Point, c: Point, d: Point, by: number): boolean {
  if (Math.max(a.x, b.x) + by < Math.min(c.x, d.x) || Math.max(c.x, d.x) + by < Math.min(a.x, b.x)) return true;
  return Math.max(a.y, b.y) + by < Math.min(c.y, d.y) || Math.max(c.y, d.y) + by < Math.min(a.y, b.y);
}

/** Twice the area of p, q, r: positive where r lies to the left of p → q. */
function side(p: Point, q: Point, r: Point): number {
  return (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
}

function opposite(first: number, second: number, min: number): boolean {
  return first * second < 0 && Math.abs(first) > min && Math.abs(second) > min;
}

/** The point of a segment nearest to a place. */
export function footOnSegment({ x, y }: Point, start: Point, end: Point): Point {
  const [dx, dy] = [end.x - start.x, end.y - start.y];
  const along = Math.min(1, Math.max(0, ((x - start.x) * dx + (y - start.y) * dy) / (dx * dx + dy * dy || 1)));
  return { x: start.x + along * dx, y: start.y + along * dy };
}

/**
 * Where two straight pieces are nearest: how far apart, and the point of each. Of pieces that cross, 0 and the ends
 * nearest to the crossing.
 */
export function nearestOfSegments(a: Point, b: Point, c: Point, d: Point): { mm: number; onA: Point; onB: Point } {
  let nearest: { mm: number; onA: Point; onB: Point } = { mm: Infinity, onA: a, onB: c };
  const tryThese = (onA: Point, onB: Point) => {
    const mm = distance(onA, onB);
    if (mm < nearest.mm) nearest = { mm, onA, onB };
  };
  tryThese(a, footOnSegment(a, c, d));
  tryThese(b, footOnSegment(b, c, d));
  tryThese(footOnSegment(c, a, b), c);
  tryThese(footOnSegment(d, a, b), d);
  return segmentsCross(a, b, c, d) ? { ...nearest, mm: 0 } : nearest;
}
