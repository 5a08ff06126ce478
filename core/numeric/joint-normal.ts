import { CholeskyDecomposition, EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { figureAt, product } from './figure-at';
import { chanceBelow } from './normal-chance';
import { normalBetween } from './truncated-normal';

/** Several unknown figures, jointly normal: their means, and their covariances by row. */
export interface JointNormal {
  mean: readonly number[];
  covariance: readonly (readonly number[])[];
}

/** A weighted sum of the figures: each weight by its figure's place. */
export type Sum = readonly (readonly [place: number, weight: number])[];

/** A sum that was read, with its own variance. */
export interface ReadSum {
  sum: Sum;
  value: number;
  variance: number;
}

/** A sum that is known to lie between two bounds, either of which may be infinite; they are blurred by a variance. */
export interface BoundSum {
  sum: Sum;
  from: number;
  to: number;
  variance: number;
}

const dot = (sum: Sum, figures: ArrayLike<number>) =>
  sum.reduce((total, [place, weight]) => total + weight * figureAt(figures, place), 0);

/** The covariance of a sum with each of the figures. */
const across = (sum: Sum, { covariance }: JointNormal) => covariance.map((row) => dot(sum, row));

/** Mean and variance of a sum of the figures. */
export function normalOf(figures: JointNormal, sum: Sum): { mean: number; variance: number } {
  return { mean: dot(sum, figures.mean), variance: dot(sum, across(sum, figures)) };
}

/**
 * The figures once a sum of them was read, and the logarithm of how likely that reading was (Bayes; R. E. Kalman's
 * update).
 */
export function afterReading(figures: JointNormal, { sum, value, variance }: ReadSum): JointNormal & { log: number } {
  const column = across(sum, figures);
  const total = dot(sum, column) + variance;
  const off = value - dot(sum, figures.mean);
  return {
    mean: figures.mean.map((mean, i) => mean + (figureAt(column, i) * off) / total),
    covariance: figures.covariance.map((row, i) =>
      row.map((entry, j) => entry - (figureAt(column, i) * figureAt(column, j)) / total),
    ),
    log: -(off ** 2 / total + Math.log(2 * Math.PI * total)) / 2,
  };
}

/** The figures with so much more doubt in some of them, all moving together. */
export function withMoreDoubt(figures: JointNormal, places: readonly number[], sigma: number): JointNormal {
  return {
    ...figures,
    covariance: figures.covariance.map((row, i) =>
      row.map((entry, j) => entry + (places.includes(i) && places.includes(j) ? sigma ** 2 : 0)),
    ),
  };
}

/** Draws figures that keep to some bounds; `draw` writes them and returns how much the draw counts. */
export type DrawFigures = (into: Float64Array) => number;

/**
 * Draws of jointly normal figures whose sums lie within bounds. The sums are drawn one after the other, each within its
 * bounds as those before it leave it, and the draw counts by the chance of that (J. Geweke, V. Hajivassiliou and M.
 * Keane); the figures follow, given the sums. The mean count is the chance that all bounds are kept.
 */
export function drawWithin(
  figures: JointNormal,
  bounds: readonly BoundSum[],
  random: { normal: () => number; uniform: () => number },
): DrawFigures {
  const columns = bounds.map(({ sum }) => across(sum, figures));
  const root = lowerRoot(
    bounds.map(({ sum, variance }, i) =>
      columns.map((column, j) => dot(sum, column) + (i === j ? variance + 1e-9 : 0)),
    ),
  );
  const sums = bounds.map(({ sum, from, to }, j) => ({ from, to, middle: dot(sum, figures.mean), row: root[j] ?? [] }));
  // How each figure goes with the deviates of the sums: columns · root⁻ᵀ, row by row by forward substitution.
  const gains = figures.mean.map((_, i) =>
    forward(
      root,
      columns.map((column) => figureAt(column, i)),
    ),
  );
  const directions = rootOf(
    figures.covariance.map((row, i) => row.map((entry, j) => entry - product(gains[i] ?? [], gains[j] ?? []))),
  );
  const drawn = figures.mean.map((mean, i) => ({
    mean,
    gain: Float64Array.from(gains[i] ?? []),
    spread: Float64Array.from(directions, (direction) => figureAt(direction, i)),
  }));
  const deviates = new Float64Array(bounds.length);
  const own = new Float64Array(directions.length);
  return (into) => {
    let count = 1;
    deviates.fill(0);
    sums.forEach(({ from, to, middle, row }, j) => {
      // Those not yet drawn are 0 still.
      const [at, sigma] = [middle + product(row, deviates), figureAt(row, j)];
      const [low, high] = [(from - at) / sigma, (to - at) / sigma];
      count *= Math.max(0, chanceBelow(high) - chanceBelow(low));
      deviates[j] = normalBetween(low, high, random);
    });
    for (let k = 0; k < own.length; k += 1) own[k] = random.normal();
    drawn.forEach(({ mean, gain, spread }, i) => {
      into[i] = mean + product(gain, deviates) + product(spread, own);
    });
    return count;
  };
}

/** The lower triangle whose square is a covariance; rounding may have left its halves a little unlike. */
function lowerRoot(matrix: readonly (readonly number[])[]): number[][] {
  if (matrix.length === 0) return [];
  const even = matrix.map((row, i) => row.map((entry, j) => (entry + figureAt(matrix[j] ?? [], i)) / 2));
  return new CholeskyDecomposition(new Matrix(even)).lowerTriangularMatrix.to2DArray();
}

/** Solves a lower triangle against one column. */
function forward(lower: readonly (readonly number[])[], column: readonly number[]): number[] {
  const solved: number[] = [];
  lower.forEach((row, j) => {
    solved.push((figureAt(column, j) - product(row, solved)) / figureAt(row, j));
  });
  return solved;
}

/** Directions whose sum, each by a deviate of its own, has a covariance; those of no length are left out. */
function rootOf(covariance: readonly (readonly number[])[]): Float64Array[] {
  if (covariance.length === 0) return [];
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(
    new Matrix(covariance.map((row) => [...row])),
    { assumeSymmetric: true },
  );
  const largest = Math.max(...realEigenvalues, 0);
  return realEigenvalues.flatMap((value, k) =>
    value > largest * 1e-12
      ? [Float64Array.from(eigenvectorMatrix.getColumn(k), (entry) => entry * Math.sqrt(value))]
      : [],
  );
}
