import { Matrix } from 'ml-matrix';
import { gradientOf, misfitOf, type Network, type Places, unknownsOf, type Weigher, weigherOf } from './least-squares';
import { isTape, type Observation } from './readings';

export interface QuickFit {
  places: number[];
  /** Weighted sum of squares of the residuals. */
  cost: number;
}

/**
 * Places that fit observations by Levenberg and Marquardt on the normal equations, without covariances: a small
 * fraction of the work of `adjust`, for trying hundreds of sets of observations. What nothing fixes stays where it
 * started.
 */
export function quickFit(observations: readonly Observation[], start: Places, network: Network, steps = 40): QuickFit {
  const unknowns = unknownsOf(start, network);
  const size = unknowns.length;
  const equations = new Equations(observations, start.length, unknowns, network);
  let places = [...start];
  let cost = equations.residuals(places);
  let damping = 1e-4;
  for (let step = 0; step < steps && size > 0 && Number.isFinite(cost); step += 1) {
    equations.linearise(places);
    let tried: number[] | null = null;
    let next = cost;
    for (let tries = 0; tries < 12 && !tried; tries += 1) {
      const change = equations.solve(damping);
      if (change) {
        const moved = places.slice();
        for (let k = 0; k < size; k += 1) moved[unknowns[k]!]! += change[k]!;
        next = equations.residuals(moved);
        if (Number.isFinite(next) && next <= cost) tried = moved;
      }
      damping = tried ? Math.max(1e-9, damping / 10) : damping * 8 + 1e-12;
    }
    if (!tried) break;
    const settled = cost - next < 1e-7 * (1 + cost);
    [places, cost] = [tried, next];
    if (settled) break;
  }
  return { places, cost };
}

/** The normal equations of a set of observations, in arrays that are made once and filled again at every step. */
class Equations {
  readonly #observations: readonly Observation[];
  readonly #network: Network;
  readonly #size: number;
  readonly #column: Int32Array;
  /** For pictures, whose coordinates err together. */
  readonly #weigh: Weigher | null;
  readonly #residuals: Float64Array;
  readonly #normal: Float64Array;
  readonly #factor: Float64Array;
  readonly #pull: Float64Array;
  readonly #change: Float64Array;

  constructor(observations: readonly Observation[], places: number, unknowns: readonly number[], network: Network) {
    this.#observations = observations;
    this.#network = network;
    this.#size = unknowns.length;
    this.#column = new Int32Array(places).fill(-1);
    unknowns.forEach((at, k) => (this.#column[at] = k));
    this.#weigh = observations.some(({ seen }) => seen) ? weigherOf(observations, network) : null;
    this.#residuals = new Float64Array(observations.length);
    this.#normal = new Float64Array(this.#size ** 2);
    this.#factor = new Float64Array(this.#size ** 2);
    this.#pull = new Float64Array(this.#size);
    this.#change = new Float64Array(this.#size);
  }

  /** Fills in the residuals over their ± at some places, and gives the sum of their squares. */
  residuals(places: Places): number {
    const residuals = this.#residuals;
    for (let k = 0; k < residuals.length; k += 1) residuals[k] = this.#misfit(this.#observations[k]!, places);
    if (this.#weigh) residuals.set(this.#weigh.values([...residuals]));
    else for (let k = 0; k < residuals.length; k += 1) residuals[k]! /= this.#observations[k]!.sigma;
    let cost = 0;
    for (let k = 0; k < residuals.length; k += 1) cost += residuals[k]! * residuals[k]!;
    return cost;
  }

  /** `misfitOf`, with a short way for the tapes that are nearly all of a net. */
  #misfit(observation: Observation, places: Places): number {
    const { kind, from, to, value, rims, over } = observation;
    if (over || from < 0 || !isTape(kind)) return misfitOf(observation, places, this.#network);
    const dx = places[2 * to]! - places[2 * from]!;
    const dy = places[2 * to + 1]! - places[2 * from + 1]!;
    return value - rims - Math.sqrt(dx * dx + dy * dy);
  }

  /** Sets up the normal equations about places whose residuals were filled in last. */
  linearise(places: Places): void {
    this.#normal.fill(0);
    this.#pull.fill(0);
    // A step that was tried and found worse has left its own residuals behind.
    this.residuals(places);
    if (this.#weigh) {
      this.#linearisePictures(places, this.#weigh);
      return;
    }
    const columns = [0, 0, 0, 0];
    const slopes = [0, 0, 0, 0];
    this.#observations.forEach((observation, k) => {
      const { kind, from, to, sigma, over } = observation;
      if (over || from < 0 || from === to || !isTape(kind)) {
        const row = gradientOf(observation, places, this.#network).filter(([at]) => this.#column[at]! >= 0);
        this.#add(
          row.map(([at]) => this.#column[at]!),
          row.map(([, slope]) => slope / sigma),
          row.length,
          this.#residuals[k]!,
        );
        return;
      }
      const dx = places[2 * to]! - places[2 * from]!;
      const dy = places[2 * to + 1]! - places[2 * from + 1]!;
      const apart = Math.sqrt(dx * dx + dy * dy);
      if (apart < 1e-9) return;
      const [sx, sy] = [dx / apart / sigma, dy / apart / sigma];
      let count = 0;
      const put = (at: number, slope: number) => {
        const column = this.#column[at]!;
        if (column < 0) return;
        columns[count] = column;
        slopes[count] = slope;
        count += 1;
      };
      put(2 * to, sx);
      put(2 * to + 1, sy);
      put(2 * from, -sx);
      put(2 * from + 1, -sy);
      this.#add(columns, slopes, count, this.#residuals[k]!);
    });
  }

  #linearisePictures(places: Places, weigh: Weigher): void {
    const design = Matrix.zeros(this.#observations.length, this.#size);
    this.#observations.forEach((observation, row) => {
      for (const [at, slope] of gradientOf(observation, places, this.#network)) {
        const column = this.#column[at]!;
        if (column >= 0) design.set(row, column, design.get(row, column) + slope / observation.sigma);
      }
    });
    weigh.slopes(design);
    const all = Array.from({ length: this.#size }, (_, k) => k);
    this.#observations.forEach((_, row) => this.#add(all, design.getRow(row), this.#size, this.#residuals[row]!));
  }

  #add(columns: readonly number[], slopes: readonly number[], count: number, residual: number): void {
    for (let i = 0; i < count; i += 1) {
      this.#pull[columns[i]!]! += slopes[i]! * residual;
      const row = columns[i]! * this.#size;
      for (let j = 0; j < count; j += 1) this.#normal[row + columns[j]!]! += slopes[i]! * slopes[j]!;
    }
  }

  /**
   * The step of the damped equations, by Cholesky; null where they are not positive definite. The array is overwritten
   * by the next call.
   */
  solve(damping: number): Float64Array | null {
    const size = this.#size;
    const factor = this.#factor;
    factor.set(this.#normal);
    for (let k = 0; k < size; k += 1)
      factor[k * size + k] = this.#normal[k * size + k]! * (1 + damping) + 1e-9 + damping * 1e-3;
    const x = this.#change;
    for (let i = 0; i < size; i += 1) {
      for (let j = 0; j <= i; j += 1) {
        let sum = factor[i * size + j]!;
        for (let k = 0; k < j; k += 1) sum -= factor[i * size + k]! * factor[j * size + k]!;
        if (i !== j) factor[i * size + j] = sum / factor[j * size + j]!;
        else if (sum > 0) factor[i * size + i] = Math.sqrt(sum);
        else return null;
      }
      let sum = this.#pull[i]!;
      for (let k = 0; k < i; k += 1) sum -= factor[i * size + k]! * x[k]!;
      x[i] = sum / factor[i * size + i]!;
    }
    for (let i = size - 1; i >= 0; i -= 1) {
      let sum = x[i]!;
      for (let k = i + 1; k < size; k += 1) sum -= factor[k * size + i]! * x[k]!;
      x[i] = sum / factor[i * size + i]!;
    }
    return x;
  }
}
