/** A point of a curve, `y` over `x`. */
export interface CurvePoint {
  x: number;
  y: number;
}

/** By `x`, one point for each: the last one given counts. */
export function inOrder(points: readonly CurvePoint[]): CurvePoint[] {
  return [...new Map(points.map((point) => [point.x, point])).values()].sort((a, b) => a.x - b.x);
}

/**
 * A curve through points by monotone cubic interpolation (Fritsch and Carlson 1980): it passes through every one and
 * nowhere rises where they fall. Held at the outer points beyond them. The points are in rising order of `x`; there is
 * one at least.
 */
export function monotoneAt(points: readonly CurvePoint[], x: number): number {
  const [first, last] = [points[0]!, points.at(-1)!];
  if (x <= first.x) return first.y;
  if (x >= last.x) return last.y;
  const slopes = slopesOf(points);
  const k = points.findIndex((point) => point.x > x) - 1;
  const [a, b] = [points[k]!, points[k + 1]!];
  const width = b.x - a.x;
  const t = (x - a.x) / width;
  return (
    (1 + 2 * t) * (1 - t) ** 2 * a.y +
    t * (1 - t) ** 2 * width * slopes[k]! +
    t * t * (3 - 2 * t) * b.y +
    t * t * (t - 1) * width * slopes[k + 1]!
  );
}

function slopesOf(points: readonly CurvePoint[]): number[] {
  const secants = points.slice(1).map((point, k) => (point.y - points[k]!.y) / (point.x - points[k]!.x));
  const slopes = points.map((_, k) => {
    const [before, after] = [secants[k - 1], secants[k]];
    if (before === undefined || after === undefined) return before ?? after ?? 0;
    return before * after <= 0 ? 0 : (before + after) / 2;
  });
  secants.forEach((secant, k) => {
    if (secant === 0) {
      slopes[k] = 0;
      slopes[k + 1] = 0;
      return;
    }
    const [a, b] = [slopes[k]! / secant, slopes[k + 1]! / secant];
    const size = Math.hypot(a, b);
    if (size <= 3) return;
    slopes[k] = (3 * a * secant) / size;
    slopes[k + 1] = (3 * b * secant) / size;
  });
  return slopes;
}
