import type { Drive } from '../drive';
import { normals } from '../numeric';
import { type Alignment, type Plane, runsOf, worstDeg } from '../planes';

/** What the worst run of a belt likely is, degrees: mean, and one standard deviation. */
export interface LikelyWorst {
  deg: number;
  plusMinusDeg: number;
}

const DRAWS = 150;
/** A variance below this is none, for a matrix that rounding has left a hair below zero. */
const NOTHING = 1e-15;

/**
 * What the worst run comes to once the doubt of every plane is in it. The figure of the planes as they were read is too
 * good: a plan is chosen to make just those runs straight, and of several doubtful runs the worst is worse than any is
 * likely to be. Every plane is drawn anew by its covariance, the same way at every call.
 */
export function likelyWorst(drive: Drive, alignment: Alignment): LikelyWorst {
  const normal = normals(16);
  const distinct = [...new Map(alignment.planes.map((plane) => [plane.pulley, plane])).values()];
  const roots = new Map(distinct.map(({ pulley, covariance }) => [pulley, choleskyOf(covariance)]));
  let [sum, squares] = [0, 0];
  for (let draw = 0; draw < DRAWS; draw += 1) {
    const drawn = new Map(distinct.map((plane) => [plane.pulley, shaken(plane, roots.get(plane.pulley)!, normal)]));
    const planes = alignment.planes.map(({ pulley }) => drawn.get(pulley)!);
    const worst = worstDeg(runsOf(drive, { ...alignment, planes }));
    sum += worst;
    squares += worst ** 2;
  }
  const deg = sum / DRAWS;
  return { deg, plusMinusDeg: Math.sqrt(Math.max(0, squares / DRAWS - deg ** 2)) };
}

function shaken(plane: Plane, root: readonly number[], normal: () => number): Plane {
  const [a, b, c] = [normal(), normal(), normal()];
  return {
    ...plane,
    offset: plane.offset + root[0]! * a,
    tilt: [plane.tilt[0] + root[1]! * a + root[2]! * b, plane.tilt[1] + root[3]! * a + root[4]! * b + root[5]! * c],
  };
}

/** The lower triangle of a 3 by 3 covariance (Cholesky), row by row; a part without variance stands still. */
function choleskyOf(c: readonly number[]): number[] {
  const root = (value: number) => (value > NOTHING ? Math.sqrt(value) : 0);
  const over = (value: number, by: number) => (by > 0 ? value / by : 0);
  const l00 = root(c[0]!);
  const l10 = over(c[3]!, l00);
  const l11 = root(c[4]! - l10 ** 2);
  const l20 = over(c[6]!, l00);
  const l21 = over(c[7]! - l20 * l10, l11);
  return [l00, l10, l11, l20, l21, root(c[8]! - l20 ** 2 - l21 ** 2)];
}
