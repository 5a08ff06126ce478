import { EigenvalueDecomposition, Matrix, inverse } from 'ml-matrix';
import type { PicturePoint } from '../../drive';

/** Half axes `a` ≥ `b`; `angle` of the long one, radians from +x toward +y. */
export interface Ellipse {
  x: number;
  y: number;
  a: number;
  b: number;
  angle: number;
}

/**
 * The ellipse that fits best to five points or more, in the algebraic sense (Fitzgibbon 1999, in the stable form of
 * Halíř and Flusser 1998). Null for fewer points, and for points on one line or one spot.
 */
export function fitEllipse(points: readonly PicturePoint[]): Ellipse | null {
  if (points.length < 5) return null;
  // Moved and scaled to about 1, or the fourth powers would drown the rest.
  const mx = points.reduce((sum, [x]) => sum + x, 0) / points.length;
  const my = points.reduce((sum, [, y]) => sum + y, 0) / points.length;
  const scale = Math.sqrt(points.reduce((sum, [x, y]) => sum + (x - mx) ** 2 + (y - my) ** 2, 0) / points.length);
  if (!(scale > 1e-9)) return null;
  const quadratic = new Matrix(
    points.map(([px, py]) => [(px - mx) / scale, (py - my) / scale]).map(([x, y]) => [x! * x!, x! * y!, y! * y!]),
  );
  const linear = new Matrix(points.map(([px, py]) => [(px - mx) / scale, (py - my) / scale, 1]));
  const s1 = quadratic.transpose().mmul(quadratic);
  const s2 = quadratic.transpose().mmul(linear);
  const s3 = linear.transpose().mmul(linear);
  let toLinear: Matrix;
  try {
    toLinear = inverse(s3).mmul(s2.transpose()).mul(-1);
  } catch {
    return null;
  }
  const m = Matrix.add(s1, s2.mmul(toLinear));
  const reduced = new Matrix([
    m.getRow(2).map((v) => v / 2),
    m.getRow(1).map((v) => -v),
    m.getRow(0).map((v) => v / 2),
  ]);
  if (reduced.to1DArray().some((value) => !Number.isFinite(value))) return null;
  const vectors = new EigenvalueDecomposition(reduced).eigenvectorMatrix;
  for (let k = 0; k < 3; k += 1) {
    const conic = vectors.getColumn(k);
    if (!(4 * conic[0]! * conic[2]! - conic[1]! ** 2 > 0)) continue;
    const rest = toLinear.mmul(Matrix.columnVector(conic)).getColumn(0);
    const ellipse = fromConic([...conic, ...rest]);
    return (
      ellipse && {
        ...ellipse,
        x: ellipse.x * scale + mx,
        y: ellipse.y * scale + my,
        a: ellipse.a * scale,
        b: ellipse.b * scale,
      }
    );
  }
  return null;
}

/** From A x² + B xy + C y² + D x + E y + F = 0. */
function fromConic([A, B, C, D, E, F]: number[]): Ellipse | null {
  const bend = 4 * A! * C! - B! * B!;
  const x = (B! * E! - 2 * C! * D!) / bend;
  const y = (B! * D! - 2 * A! * E!) / bend;
  const level = F! + (D! * x + E! * y) / 2;
  const mean = (A! + C!) / 2;
  const spread = Math.hypot((A! - C!) / 2, B! / 2);
  const [first, second] = [-level / (mean - spread), -level / (mean + spread)];
  if (!(first > 0 && second > 0)) return null;
  const along = first >= second ? 0.5 * Math.atan2(-B!, C! - A!) : 0.5 * Math.atan2(B!, A! - C!);
  return { x, y, a: Math.sqrt(Math.max(first, second)), b: Math.sqrt(Math.min(first, second)), angle: along };
}
