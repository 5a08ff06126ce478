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
  const sum = (of: (one: { x: number; y: number; weight: number }) => number) =>
    points.reduce((all, one) => all + of(one), 0);
  const weight = sum((one) => one.weight);
  const x = sum((one) => one.weight * one.x) / weight;
  const y = sum((one) => one.weight * one.y) / weight;
  const spread = sum((one) => one.weight * (one.x - x) ** 2);
  const slope = sum((one) => one.weight * (one.x - x) * (one.y - y)) / spread;
  return { x, y, slope, weight, spread, left: sum((one) => one.weight * (one.y - y - slope * (one.x - x)) ** 2) };
}
