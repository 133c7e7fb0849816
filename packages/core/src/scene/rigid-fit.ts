import type { Vector3 } from '../model/vector';
import { matrixOf, type LinearMap, type Matrix } from '../geometry/matrix';

import { symmetricAxes } from './symmetric-axes';

/**
 * The turn and move that brings points nearest to others, pair by pair, by least squares. Never a mirror.
 * Source: B. K. P. Horn, Closed-form solution of absolute orientation using unit quaternions, 1987.
 * @param from and `to`: as many numbers each, xyz triples
 */
export function rigidFit(from: ArrayLike<number>, to: ArrayLike<number>): Matrix {
  const [a, b] = [middleOf(from), middleOf(to)];
  const s = new Float64Array(9);
  for (let i = 0; i < from.length; i += 3)
    for (let r = 0; r < 3; r++) for (let c = 0; c < 3; c++) s[r * 3 + c] += (from[i + r] - a[r]) * (to[i + c] - b[c]);
  const [xx, xy, xz, yx, yy, yz, zx, zy, zz] = s;
  const { values, axes } = symmetricAxes([
    [xx + yy + zz, yz - zy, zx - xz, xy - yx],
    [yz - zy, xx - yy - zz, xy + yx, zx + xz],
    [zx - xz, xy + yx, yy - xx - zz, yz + zy],
    [xy - yx, zx + xz, yz + zy, zz - xx - yy],
  ]);
  const [w, x, y, z] = axes[values.indexOf(Math.max(...values))];
  const turn: LinearMap = [
    w * w + x * x - y * y - z * z,
    2 * (x * y + w * z),
    2 * (x * z - w * y),
    2 * (x * y - w * z),
    w * w - x * x + y * y - z * z,
    2 * (y * z + w * x),
    2 * (x * z + w * y),
    2 * (y * z - w * x),
    w * w - x * x - y * y + z * z,
  ];
  const of = (k: number): number => b[k] - (turn[k] * a[0] + turn[3 + k] * a[1] + turn[6 + k] * a[2]);
  return matrixOf(turn, [of(0), of(1), of(2)]);
}

/** Mean of points. @param points xyz triples, at least one */
export function middleOf(points: ArrayLike<number>): Vector3 {
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < points.length; i += 3) for (let k = 0; k < 3; k++) sum[k] += points[i + k];
  const count = points.length / 3;
  return [sum[0] / count, sum[1] / count, sum[2] / count];
}
