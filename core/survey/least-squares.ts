import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { pseudoSolve, headingDeg, DEGREES } from '../numeric';
import type { Observation } from './readings';

/**
 * Places of the shafts: x and y of shaft k at 2k and 2k+1, mm. After them, of each picture, how its frame lies on the
 * drive's: shift x, y in mm, and turn in radians. At the end how much larger than drawn each radius with a ± of its own
 * is, mm.
 */
export type Places = readonly number[];

/** What an adjustment is about, apart from the readings. */
export interface Network {
  /** Number of shafts. */
  count: number;
  /** The shaft all others are measured from. */
  datum: number;
  /** Of each picture, how the errors of its coordinates go together: correlations, row by row. */
  pictures: readonly (readonly (readonly number[])[])[];
  /** The first picture's upright is the drive's, for no reading says which way is up. */
  upright: boolean;
  /** How many radii have a ± of their own. */
  radii: number;
}

/** Where picture k's shift begins among the places. */
export const pictureAt = ({ count }: Pick<Network, 'count'>, picture: number): number => 2 * count + 3 * picture;

/** Where such a radius is among the places. */
const radiusAt = ({ count, pictures }: Pick<Network, 'count' | 'pictures'>, radius: number): number =>
  2 * count + 3 * pictures.length + radius;

export interface Adjusted {
  places: number[];
  /** Weighted sum of squares of the residuals. */
  cost: number;
  /** Reading minus what the places give, in the reading's unit. */
  residuals: number[];
  /**
   * The residuals over what is expected of them, those of one picture freed of what they share: all independent, each
   * of variance one.
   */
  weighted: number[];
  /** How much of each reading the others check: 0 nothing, 1 all of it. */
  redundancy: number[];
  /** Covariance of all places; rows of what is held are zero. */
  covariance: Matrix;
  /** By shaft: the readings leave it free to move in some direction. */
  free: boolean[];
  /** The readings fix no direction, so the whole turned with the sketch. */
  turned: boolean;
}

const STEPS = 60;

/**
 * Weighted least squares by Gauss–Newton on the singular value decomposition, started at `start`; the datum shaft stays
 * where it is. What the readings do not fix stays as near to the start as it can, so a sketch fills the gaps; nothing
 * is thrown for too few readings.
 */
export function adjust(observations: readonly Observation[], start: Places, network: Network): Adjusted {
  const places = [...start];
  const unknowns = unknownsOf(places, network);
  const weigh = weigherOf(observations, network);
  const costAt = (tried: Places) =>
    weigh
      .values(observations.map((observation) => misfitOf(observation, tried, network)))
      .reduce((sum, value) => sum + value * value, 0);
  let cost = costAt(places);
  for (let step = 0; step < STEPS && observations.length > 0 && unknowns.length > 0; step += 1) {
    const { design, misfit } = linearised(observations, places, unknowns, network, weigh);
    const change = pseudoSolve(design, misfit).change;
    let share = 1;
    let next = cost;
    // Half the step until it helps: far from the answer a straight line is a poor guide.
    for (; share > 1e-4; share /= 2) {
      const tried = places.slice();
      unknowns.forEach((at, k) => (tried[at]! += share * change[k]!));
      next = costAt(tried);
      if (next <= cost + 1e-12) {
        tried.forEach((value, at) => (places[at] = value));
        break;
      }
    }
    const settled = Math.abs(cost - next) <= 1e-12 * (1 + cost) && Math.max(...change.map(Math.abs)) < 1e-7;
    if (next <= cost) cost = next;
    if (settled || share <= 1e-4) break;
  }
  return describe(observations, places, unknowns, cost, network, weigh);
}

/**
 * What an adjustment would tell if its places were these: how much each reading is checked, and how surely the places
 * are held.
 */
export function describedAt(observations: readonly Observation[], places: Places, network: Network): Adjusted {
  const weigh = weigherOf(observations, network);
  const cost = weigh
    .values(observations.map((observation) => misfitOf(observation, places, network)))
    .reduce((sum, value) => sum + value * value, 0);
  return describe(observations, [...places], unknownsOf(places, network), cost, network, weigh);
}

function describe(
  observations: readonly Observation[],
  places: number[],
  unknowns: readonly number[],
  cost: number,
  network: Network,
  weigh: Weigher,
): Adjusted {
  const residuals = observations.map((observation) => misfitOf(observation, places, network));
  const weighted = weigh.values(residuals);
  const size = places.length;
  const covariance = Matrix.zeros(size, size);
  const free = Array.from({ length: network.count }, () => false);
  if (unknowns.length === 0 || observations.length === 0) {
    unknowns.forEach((at) => at < 2 * network.count && (free[Math.floor(at / 2)] = true));
    return {
      places,
      cost,
      residuals,
      weighted,
      redundancy: observations.map(() => 1),
      covariance,
      free,
      turned: false,
    };
  }
  const { design } = linearised(observations, places, unknowns, network, weigh);
  const { inverse: pseudo, nullSpace } = pseudoSolve(
    design,
    observations.map(() => 0),
  );
  const inverse = pseudo();
  // Distances alone leave one free motion of the whole: turning about the datum. It is no gap, for the sketch says
  // which way is up.
  const turning =
    !network.upright && !observations.some(({ kind }) => kind === 'angle' || kind === 'x' || kind === 'y');
  for (const station of looseStations(nullSpace, unknowns, places, turning, network.count)) free[station] = true;
  const normal = inverse.mmul(inverse.transpose());
  unknowns.forEach((row, i) => unknowns.forEach((column, j) => covariance.set(row, column, normal.get(i, j))));
  const hat = design.mmul(inverse);
  return {
    places,
    cost,
    residuals,
    weighted,
    redundancy: observations.map((_, k) => Math.max(0, 1 - hat.get(k, k))),
    covariance,
    free,
    turned: turning,
  };
}

/**
 * The shafts that some motion no reading sees would move. Where the whole may turn, that turn is taken out by holding
 * the direction of one shaft, the one that leaves the fewest loose: held by a shaft that dangles, all the firm ones
 * would seem to swing.
 */
function looseStations(
  nullSpace: readonly number[][],
  unknowns: readonly number[],
  places: Places,
  turning: boolean,
  count: number,
): Set<number> {
  const moves = (vectors: readonly number[][]) =>
    new Set(
      unknowns
        .filter((at, k) => at < 2 * count && vectors.some((vector) => Math.abs(vector[k]!) > 1e-4))
        .map((at) => Math.floor(at / 2)),
    );
  if (!turning) return moves(nullSpace);
  const known = new Set(unknowns);
  const datum = places.findIndex((_, at) => at % 2 === 0 && !known.has(at));
  let fewest = moves(nullSpace);
  for (const at of unknowns.filter((index) => index % 2 === 0)) {
    const [x, y] = [places[at]! - places[datum]!, places[at + 1]! - places[datum + 1]!];
    const k = unknowns.indexOf(at);
    const swing = nullSpace.map((vector) => (x * vector[k + 1]! - y * vector[k]!) / (Math.hypot(x, y) || 1));
    const max = swing.reduce((best, value, v) => (Math.abs(value) > Math.abs(swing[best]!) ? v : best), 0);
    if (nullSpace.length === 0 || Math.abs(swing[max]!) < 1e-6) continue;
    const held = nullSpace
      .filter((_, v) => v !== max)
      .map((vector) =>
        vector.map((value, i) => value - (swing[nullSpace.indexOf(vector)]! / swing[max]!) * nullSpace[max]![i]!),
      );
    const loose = moves(held);
    if (loose.size < fewest.size) fewest = loose;
  }
  return fewest;
}

/**
 * The unknowns of a network by their place: all but the datum shaft, and the turn of a picture that is held upright.
 */
export function unknownsOf(places: Places, network: Network): number[] {
  const held = network.upright ? pictureAt(network, 0) + 2 : -1;
  return places
    .map((_, k) => k)
    .filter((k) => (k >= 2 * network.count ? k !== held : Math.floor(k / 2) !== network.datum));
}

/** The rows of one picture, and what to multiply them by. */
interface Block {
  rows: number[];
  root: Matrix;
}

export interface Weigher {
  values: (misfits: readonly number[]) => number[];
  /** For slopes already divided by each row's own sigma. */
  slopes: (design: Matrix) => void;
}

/**
 * Divides residuals by what is expected of them. The coordinates of one picture err together (a wrong scale, a wrong
 * tilt), so theirs are first freed of that by the inverse square root of their covariance.
 */
export function weigherOf(observations: readonly Observation[], network: Network): Weigher {
  const blocks = network.pictures.flatMap((correlation, picture): Block[] => {
    const rows = observations.flatMap(({ seen }, k) => (seen?.picture === picture ? [k] : []));
    if (rows.length === 0) return [];
    const covariance = rows.map((i) =>
      rows.map(
        (j) =>
          correlation[observations[i]!.seen!.row]![observations[j]!.seen!.row]! *
          observations[i]!.sigma *
          observations[j]!.sigma,
      ),
    );
    const { realEigenvalues, eigenvectorMatrix: vectors } = new EigenvalueDecomposition(new Matrix(covariance), {
      assumeSymmetric: true,
    });
    const min = Math.max(...realEigenvalues) * 1e-9;
    const root = vectors
      .mmul(Matrix.diag(realEigenvalues.map((value) => 1 / Math.sqrt(Math.max(value, min)))))
      .mmul(vectors.transpose());
    return [{ rows, root }];
  });
  return {
    values: (misfits) => {
      const weighted = misfits.map((value, k) => value / observations[k]!.sigma);
      for (const { rows, root } of blocks)
        rows.forEach(
          (at, i) => (weighted[at] = rows.reduce((sum, from, j) => sum + root.get(i, j) * misfits[from]!, 0)),
        );
      return weighted;
    },
    slopes: (design) => {
      for (const { rows, root } of blocks) {
        const own = rows.map((row) => design.getRow(row).map((slope) => slope * observations[row]!.sigma));
        rows.forEach((row, i) =>
          design.setRow(
            row,
            own[0]!.map((_, k) => rows.reduce((sum, _row, j) => sum + root.get(i, j) * own[j]![k]!, 0)),
          ),
        );
      }
    },
  };
}

function linearised(
  observations: readonly Observation[],
  places: Places,
  unknowns: readonly number[],
  network: Network,
  weigh: Weigher,
): { design: Matrix; misfit: number[] } {
  const column = new Map(unknowns.map((at, k) => [at, k]));
  const design = Matrix.zeros(observations.length, unknowns.length);
  observations.forEach((observation, row) => {
    for (const [at, slope] of gradientOf(observation, places, network)) {
      const k = column.get(at);
      if (k !== undefined) design.set(row, k, design.get(row, k) + slope / observation.sigma);
    }
  });
  weigh.slopes(design);
  return { design, misfit: weigh.values(observations.map((observation) => misfitOf(observation, places, network))) };
}

/** Reading minus what the places give; angles by the short way round. */
export function misfitOf(
  observation: Observation,
  places: Places,
  network: Pick<Network, 'count' | 'pictures'>,
): number {
  const difference = observation.value - predictedBy(observation, places, network);
  return observation.kind === 'angle' ? ((((difference + 180) % 360) + 360) % 360) - 180 : difference;
}

/** What the reading would be if the shafts were at `places`. */
export function predictedBy(
  { kind, from, to, rims, seen, over }: Observation,
  places: Places,
  network: Pick<Network, 'count' | 'pictures'>,
): number {
  const larger = over ? over.reduce((sum, { radius, sign }) => sum + sign * places[radiusAt(network, radius)]!, 0) : 0;
  if (kind === 'radius') return larger;
  const x = (k: number) => (k < 0 ? 0 : places[2 * k]!);
  const y = (k: number) => (k < 0 ? 0 : places[2 * k + 1]!);
  if (kind === 'x') return x(to);
  if (kind === 'y') return y(to);
  if (seen) {
    const at = pictureAt(network, seen.picture);
    const [shiftX, shiftY, turn] = [places[at]!, places[at + 1]!, places[at + 2]!];
    return kind === 'seen-x'
      ? shiftX + Math.cos(turn) * x(to) - Math.sin(turn) * y(to)
      : shiftY + Math.sin(turn) * x(to) + Math.cos(turn) * y(to);
  }
  const [dx, dy] = [x(to) - x(from), y(to) - y(from)];
  return kind === 'angle' ? headingDeg(dx, dy) : Math.hypot(dx, dy) + rims + larger;
}

/** Slopes of a reading by place index. Two shafts on one spot have no direction between them, so no slope. */
export function gradientOf(
  { kind, from, to, seen, over = [] }: Pick<Observation, 'kind' | 'from' | 'to' | 'seen' | 'over'>,
  places: Places,
  network: Pick<Network, 'count' | 'pictures'>,
): [number, number][] {
  const rims = over.map(({ radius, sign }): [number, number] => [radiusAt(network, radius), sign]);
  if (kind === 'radius') return rims;
  if (kind === 'x') return [[2 * to, 1]];
  if (kind === 'y') return [[2 * to + 1, 1]];
  if (seen) {
    const at = pictureAt(network, seen.picture);
    const [x, y] = [places[2 * to]!, places[2 * to + 1]!];
    const [c, s] = [Math.cos(places[at + 2]!), Math.sin(places[at + 2]!)];
    return kind === 'seen-x'
      ? [
          [at, 1],
          [at + 2, -s * x - c * y],
          [2 * to, c],
          [2 * to + 1, -s],
        ]
      : [
          [at + 1, 1],
          [at + 2, c * x - s * y],
          [2 * to, s],
          [2 * to + 1, c],
        ];
  }
  if (from < 0 || to < 0 || from === to) return [];
  const [dx, dy] = [places[2 * to]! - places[2 * from]!, places[2 * to + 1]! - places[2 * from + 1]!];
  const apart = Math.hypot(dx, dy);
  if (apart < 1e-9) return [];
  const [sx, sy] =
    kind === 'angle' ? [(-dy / apart ** 2) * DEGREES, (dx / apart ** 2) * DEGREES] : [dx / apart, dy / apart];
  return [[2 * to, sx], [2 * to + 1, sy], [2 * from, -sx], [2 * from + 1, -sy], ...rims];
}
