import { Matrix, SingularValueDecomposition } from 'ml-matrix';

/** The least change that solves in the least-squares sense, the pseudo-inverse, and the directions no reading sees. */
export function pseudoSolve(
  design: Matrix,
  misfit: readonly number[],
): { change: number[]; inverse: () => Matrix; nullSpace: number[][] } {
  const wide = design.rows < design.columns;
  const svd = new SingularValueDecomposition(wide ? padded(design) : design, { autoTranspose: false });
  const values = svd.diagonal;
  const min = Math.max(...values, 0) * 1e-9;
  const right = svd.rightSingularVectors;
  const left = svd.leftSingularVectors;
  const { rows, columns } = design;
  // By plain arrays: this is done at every step of every fit.
  const byColumn = (matrix: Matrix, k: number) =>
    Float64Array.from({ length: matrix.rows }, (_, i) => matrix.get(i, k));
  const inverse = Array.from({ length: columns }, () => new Float64Array(rows));
  const nullSpace: number[][] = [];
  values.forEach((value, k) => {
    if (value <= min || value === 0) {
      nullSpace.push(right.getColumn(k));
      return;
    }
    const [across, down] = [byColumn(right, k), byColumn(left, k)];
    for (let i = 0; i < columns; i += 1) {
      const scaled = across[i]! / value;
      if (scaled === 0) continue;
      const row = inverse[i]!;
      for (let j = 0; j < rows; j += 1) row[j]! += scaled * down[j]!;
    }
  });
  const change = inverse.map((row) => {
    let sum = 0;
    for (let j = 0; j < rows; j += 1) sum += row[j]! * misfit[j]!;
    return sum;
  });
  return { change, inverse: () => new Matrix(inverse.map((row) => [...row])), nullSpace };
}

/** Rows of zeros below, so that there are as many rows as columns and every direction gets a singular value. */
function padded(design: Matrix): Matrix {
  const square = Matrix.zeros(design.columns, design.columns);
  square.setSubMatrix(design, 0, 0);
  return square;
}
