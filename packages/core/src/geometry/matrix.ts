import type { Vector3 } from '../model/vector';

/** Sixteen numbers by columns, as glTF has them; the last row is 0 0 0 1. */
export type Matrix = readonly number[];

/** Three columns of a linear map, as the upper left of a matrix. */
export type LinearMap = readonly [number, number, number, number, number, number, number, number, number];

export const UNIT_MATRIX: Matrix = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

/** Of two matrices. */
export function product(a: Matrix, b: Matrix): Matrix {
  return Array.from({ length: 16 }, (_unused, n) =>
    [0, 1, 2, 3].reduce((sum, k) => sum + a[k * 4 + (n % 4)] * b[Math.floor(n / 4) * 4 + k], 0),
  );
}

/** Upper left of a matrix by columns. */
export function linearOf(m: Matrix): LinearMap {
  return [m[0], m[1], m[2], m[4], m[5], m[6], m[8], m[9], m[10]];
}

/** A matrix of a linear map and a place. */
export function matrixOf(m: LinearMap, [x, y, z]: Vector3): Matrix {
  return [m[0], m[1], m[2], 0, m[3], m[4], m[5], 0, m[6], m[7], m[8], 0, x, y, z, 1];
}

/** A point in the frame that a matrix leads to. */
export function movedPoint(m: Matrix, [x, y, z]: Vector3): [number, number, number] {
  const of = (k: number): number => m[k] * x + m[4 + k] * y + m[8 + k] * z + m[12 + k];
  return [of(0), of(1), of(2)];
}
