/** Sweeps after which nothing changes any more, by far. */
const SWEEPS = 60;

/** Own values of a symmetric matrix, and for each its axis of length 1. */
export interface SymmetricAxes {
  readonly values: readonly number[];
  readonly axes: readonly (readonly number[])[];
}

/**
 * Own values and axes of a small symmetric matrix. Source: C. G. J. Jacobi, 1846, cyclic by rows, as in Golub, Van Loan, Matrix Computations, 8.5.
 * @param matrix rows of equal length
 */
export function symmetricAxes(matrix: readonly (readonly number[])[]): SymmetricAxes {
  const n = matrix.length;
  const a = matrix.map((row) => [...row]);
  const v = matrix.map((_, i) => matrix.map((_one, j): number => (i === j ? 1 : 0)));
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let off = 0;
    for (let p = 0; p < n; p++) for (let q = p + 1; q < n; q++) off += a[p][q] * a[p][q];
    if (off === 0) break;
    for (let p = 0; p < n; p++) {
      for (let q = p + 1; q < n; q++) {
        if (a[p][q] === 0) continue;
        const theta = (a[q][q] - a[p][p]) / (2 * a[p][q]);
        const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
        const c = 1 / Math.sqrt(t * t + 1);
        const s = t * c;
        for (let k = 0; k < n; k++) {
          const [kp, kq] = [a[k][p], a[k][q]];
          a[k][p] = c * kp - s * kq;
          a[k][q] = s * kp + c * kq;
        }
        for (let k = 0; k < n; k++) {
          const [pk, qk] = [a[p][k], a[q][k]];
          a[p][k] = c * pk - s * qk;
          a[q][k] = s * pk + c * qk;
          const [kp, kq] = [v[k][p], v[k][q]];
          v[k][p] = c * kp - s * kq;
          v[k][q] = s * kp + c * kq;
        }
        a[p][q] = a[q][p] = 0;
      }
    }
  }
  return {
    values: a.map((row, i) => row[i]),
    axes: a.map((_, i) => v.map((row) => row[i])),
  };
}
