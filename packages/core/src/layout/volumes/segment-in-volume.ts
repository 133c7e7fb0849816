import { turnMatrix, turnVector } from '../../geometry/turn';
import type { Vector3 } from '../../model/vector';
import type { Volume } from '../../model/volume';
import { volumePlanes } from './volume-surface';

/** The part of a straight way that lies in a volume, as shares of it from 0 to 1, its border counted in; undefined when none does. */
export function segmentInVolume(
  { position, turn, shape }: Pick<Volume, 'position' | 'turn' | 'shape'>,
  from: Vector3,
  to: Vector3,
): readonly [number, number] | undefined {
  const start: Vector3 = [from[0] - position[0], from[1] - position[1], from[2] - position[2]];
  const way: Vector3 = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  if (shape.form === 'sphere') return segmentInSphere(start, way, shape.radiusMetres);
  const planes = volumePlanes(shape);
  if (!planes) return undefined;
  const m = turnMatrix(turn);
  let [low, high] = [0, 1];
  for (const [x, y, z, d] of planes) {
    const n = turnVector(m, x, y, z);
    const rest = d + 1e-9 - dot(n, start);
    const speed = dot(n, way);
    if (speed > 0) high = Math.min(high, rest / speed);
    else if (speed < 0) low = Math.max(low, rest / speed);
    else if (rest < 0) return undefined;
  }
  return low <= high ? [low, high] : undefined;
}

/** |start + t way|² = r², solved for t. */
function segmentInSphere(start: Vector3, way: Vector3, radius: number): readonly [number, number] | undefined {
  const [a, b, c] = [dot(way, way), dot(start, way), dot(start, start) - radius * radius];
  if (a === 0) return c <= 0 ? [0, 1] : undefined;
  const root = b * b - a * c;
  if (root < 0) return undefined;
  const [low, high] = [Math.max(0, (-b - Math.sqrt(root)) / a), Math.min(1, (-b + Math.sqrt(root)) / a)];
  return low <= high ? [low, high] : undefined;
}

function dot(a: Vector3, b: Vector3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}
