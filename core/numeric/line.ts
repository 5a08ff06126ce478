/** A straight line through weighted points, about their own middle, so that its two figures are independent. */
export interface WeightedLine {
  /** The middle of the points, which it goes through. */
  x: number;
  y: number;
  slope: number;
  /** The sum of the weights, and of the weighted squares of the distances from the middle along x. */
  weight: number;
  spread: number;
  /** The weighted sum of the squares that are left. */
  left: number;
}

/** Least squares; of points that all lie at one x the slope is not a number. */
export function weightedLine(points: readonly { x: number; y: number; weight: number }[]): WeightedLine {
  const sum = (value: (point: { x: number; y: number; weight: number }) => number) =>
    points.reduce((all, point) => all + value(point), 0);
  const weight = sum((point) => point.weight);
  const x = sum((point) => point.weight * point.x) / weight;
  const y = sum((point) => point.weight * point.y) / weight;
  const spread = sum((point) => point.weight * (point.x - x) ** 2);
  const slope = sum((point) => point.weight * (point.x - x) * (point.y - y)) / spread;
  return {
    x,
    y,
    slope,
    weight,
    spread,
    left: sum((point) => point.weight * (point.y - y - slope * (point.x - x)) ** 2),
  };
}
