import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { gradientOf, misfitOf, unknownsOf, weigherOf, type Network, type Places } from './least-squares';
import type { Observation } from './readings';

export interface QuickFit {
  places: number[];
  /** Weighted sum of squares of the residuals. */
  cost: number;
}

/**
 * Places that fit observations by Levenberg and Marquardt on the normal equations, without covariances: a fraction of the work of `adjust`, for trying many sets of observations.
 * What nothing fixes stays where it started.
 */
export function quickFit(observations: readonly Observation[], start: Places, network: Network, steps = 40): QuickFit {
  const unknowns = unknownsOf(start, network);
  const column = new Map(unknowns.map((at, k) => [at, k]));
  const weigh = weigherOf(observations, network);
  const plain = observations.every(({ seen }) => !seen);
  const values = (places: Places) => {
    const misfits = observations.map((observation) => misfitOf(observation, places, network));
    return plain ? misfits.map((misfit, k) => misfit / observations[k]!.sigma) : weigh.values(misfits);
  };
  const size = unknowns.length;
  let places = [...start];
  let residuals = values(places);
  let cost = sumOfSquares(residuals);
  let damping = 1e-4;
  for (let step = 0; step < steps && size > 0 && Number.isFinite(cost); step += 1) {
    const { normal, pull } = normalEquations(observations, places, residuals, column, network, plain ? null : weigh);
    let tried: number[] | null = null;
    let next = cost;
    for (let tries = 0; tries < 12; tries += 1) {
      const damped = new Matrix(normal);
      for (let k = 0; k < size; k += 1) damped.set(k, k, normal[k]![k]! * (1 + damping) + 1e-9 + damping * 1e-3);
      const factored = new CholeskyDecomposition(damped);
      if (!factored.isPositiveDefinite()) {
        damping = 10 * damping + 1e-9;
        continue;
      }
      const change = factored.solve(Matrix.columnVector(pull));
      const moved = [...places];
      unknowns.forEach((at, k) => (moved[at]! += change.get(k, 0)));
      const cheaper = sumOfSquares(values(moved));
      if (Number.isFinite(cheaper) && cheaper <= cost) {
        [tried, next] = [moved, cheaper];
        damping = Math.max(1e-9, damping / 10);
        break;
      }
      damping *= 8;
    }
    if (!tried) break;
    const settled = cost - next < 1e-7 * (1 + cost);
    [places, cost] = [tried, next];
    residuals = values(places);
    if (settled) break;
  }
  return { places, cost };
}

function normalEquations(observations: readonly Observation[], places: Places, residuals: readonly number[], column: ReadonlyMap<number, number>, network: Network, weigh: ReturnType<typeof weigherOf> | null) {
  const size = column.size;
  const rows = observations.map((observation) =>
    gradientOf(observation, places, network).flatMap(([at, slope]): [number, number][] => {
      const k = column.get(at);
      return k === undefined ? [] : [[k, slope / observation.sigma]];
    }),
  );
  const normal = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const pull = new Array<number>(size).fill(0);
  const add = (row: readonly (readonly [number, number])[], residual: number) => {
    for (const [i, a] of row) {
      pull[i]! += a * residual;
      for (const [j, b] of row) normal[i]![j]! += a * b;
    }
  };
  if (!weigh) {
    rows.forEach((row, k) => add(row, residuals[k]!));
    return { normal, pull };
  }
  const design = Matrix.zeros(rows.length, size);
  rows.forEach((row, r) => row.forEach(([k, slope]) => design.set(r, k, design.get(r, k) + slope)));
  weigh.slopes(design);
  for (let r = 0; r < rows.length; r += 1) add(design.getRow(r).flatMap((slope, k): [number, number][] => (slope === 0 ? [] : [[k, slope]])), residuals[r]!);
  return { normal, pull };
}

function sumOfSquares(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value * value, 0);
}
