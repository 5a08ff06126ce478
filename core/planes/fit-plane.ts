import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { mostOfSound, pseudoSolve } from '../numeric';

/** Tilts are taken to be none, give or take this, where readings do not tell. A default. */
export const TILT_SIGMA = (0.3 * Math.PI) / 180;
/** Places on a rim within this of one another are one place. Radians. */
export const ONE_PLACE = (10 * Math.PI) / 180;
/** Readings that leave a tilt open by more than so many times the default tell nothing of it. */
const TELLS_NOTHING = 10;

/** One reading, as a sum needs it: mm and radians; `at` null in the middle of the pulley. */
export interface PlaneReading {
  mm: number;
  at: number | null;
  radius: number;
  sigma: number;
  /** How far the pulley was turned on its shaft. */
  turned: number;
}

/**
 * A pulley's plane: z = offset + tilt·(place − centre), mm and slopes. The covariance is that of offset, tilt along x
 * and tilt along y, row by row.
 */
export interface FittedPlane {
  offset: number;
  tilt: readonly [number, number];
  covariance: readonly number[];
  /** Sum of the squares of what is left of each reading over its ±, and how many readings check one another. */
  cost: number;
  spare: number;
  /** Reading minus plane, mm. */
  residuals: readonly number[];
  /** How many directions of the tilt the readings tell of, of two; the others are left to the default. */
  tiltsSeen: number;
}

/**
 * Least squares through the readings of one pulley: z(θ) = offset + R·(tx·cosθ + ty·sinθ). In directions that too few
 * readings tell of, the tilt is 0 ± `TILT_SIGMA`; `always` takes that for every direction, to ask whether a plane is
 * likely. Where readings contradict one another the covariance grows with them. No readings at all are a
 * programming fault.
 */
export function fitPlane(readings: readonly PlaneReading[], always = false): FittedPlane {
  const places = readings.map(({ at }) => (at === null ? [0, 0] : [Math.cos(at), Math.sin(at)]));
  const unseen = always ? BOTH : unseenDirections(readings, places);
  // The unknowns: the offset, and each slope times the largest radius, so that all are mm.
  const scale = readings.reduce((max, { radius }) => Math.max(max, radius), 1);
  const rows = [
    ...readings.map(({ radius, sigma }, k) =>
      [1, ...places[k]!.map((part) => (part * radius) / scale)].map((part) => part / sigma),
    ),
    ...unseen.map((direction) => [0, ...direction].map((part) => part / (TILT_SIGMA * scale))),
  ];
  const values = [...readings.map(({ mm, sigma }) => mm / sigma), ...unseen.map(() => 0)];
  const { change, inverse } = pseudoSolve(new Matrix(rows), values);
  const predicted = (row: readonly number[]) => row.reduce((sum, slope, i) => sum + slope * change[i]!, 0);
  const cost = rows.reduce((sum, row, k) => sum + (values[k]! - predicted(row)) ** 2, 0);
  const spare = rows.length - 3;
  // What contradicts itself is known no better than it agrees.
  const grown = !always && spare > 0 && cost > mostOfSound(spare) ? cost / spare : 1;
  const root = inverse();
  const all = root.mmul(root.transpose());
  const units = [1, 1 / scale, 1 / scale];
  return {
    offset: change[0]!,
    tilt: [change[1]! / scale, change[2]! / scale],
    covariance: units.flatMap((a, i) => units.map((b, j) => all.get(i, j) * a * b * grown)),
    cost,
    spare,
    residuals: readings.map(({ sigma }, k) => (values[k]! - predicted(rows[k]!)) * sigma),
    tiltsSeen: 2 - unseen.length,
  };
}

const BOTH = [
  [1, 0],
  [0, 1],
];

/**
 * The directions of a tilt that the readings leave open: those in which they spread so little, or are so unsure, that
 * the tilt would be known worse than `TELLS_NOTHING` times the default.
 */
function unseenDirections(readings: readonly PlaneReading[], places: readonly (readonly number[])[]): number[][] {
  const weights = readings.map(({ sigma }) => 1 / sigma ** 2);
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const rim = places.map((place, k) => place.map((part) => part * readings[k]!.radius));
  const middle = [0, 1].map((i) => rim.reduce((sum, place, k) => sum + weights[k]! * place[i]!, 0) / all);
  const spread = Matrix.zeros(2, 2);
  rim.forEach((place, k) => {
    for (const i of [0, 1])
      for (const j of [0, 1])
        spread.set(i, j, spread.get(i, j) + weights[k]! * (place[i]! - middle[i]!) * (place[j]! - middle[j]!));
  });
  const min = 1 / (TELLS_NOTHING * TILT_SIGMA) ** 2;
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(spread, { assumeSymmetric: true });
  return realEigenvalues.flatMap((value, k) => (value < min ? [eigenvectorMatrix.getColumn(k)] : []));
}
