import { directedTangent, wrapBetween } from './tangent';

/** A circle that a line runs round: +1 where it bends counter-clockwise. */
export interface LoopCircle {
  x: number;
  y: number;
  radius: number;
  turn: 1 | -1;
}

/** A closed line round circles: the arc on each and the straight piece after it, mm. */
export interface Loop {
  arcs: number[];
  spans: number[];
  length: number;
}

/** The closed line that runs tightly round circles in order; null where two neighbours have no tangent. */
export function loopRound(circles: readonly LoopCircle[]): Loop | null {
  if (circles.length < 2) return null;
  const tangents = circles.map((from, k) => {
    const to = circles[(k + 1) % circles.length]!;
    return directedTangent(from, from.radius, from.turn, to, to.radius, to.turn);
  });
  if (tangents.some((tangent) => tangent === null)) return null;
  const arcs = circles.map(
    ({ turn, radius }, k) =>
      radius *
      wrapBetween(turn, tangents[(k + circles.length - 1) % circles.length]!.direction, tangents[k]!.direction),
  );
  const spans = tangents.map((tangent) => tangent!.length);
  return { arcs, spans, length: [...arcs, ...spans].reduce((sum, value) => sum + value, 0) };
}
