import type { TurnDegrees, Vector3 } from '../model/vector';
import { atan2Degrees, cosDegrees, sinDegrees } from '../numeric/trigonometry';

/** Nine numbers, row by row: turned = M · local. */
export type TurnMatrix = readonly [number, number, number, number, number, number, number, number, number];

/** The matrix Ry(yaw) · Rx(pitch) · Rz(roll); exact at multiples of 90 degrees. */
export function turnMatrix([yaw, pitch, roll]: TurnDegrees): TurnMatrix {
  const cy = cosDegrees(yaw);
  const sy = sinDegrees(yaw);
  const cx = cosDegrees(pitch);
  const sx = sinDegrees(pitch);
  const cz = cosDegrees(roll);
  const sz = sinDegrees(roll);
  return [
    cy * cz + sy * sx * sz,
    sy * sx * cz - cy * sz,
    sy * cx,
    cx * sz,
    cx * cz,
    -sx,
    cy * sx * sz - sy * cz,
    sy * sz + cy * sx * cz,
    cy * cx,
  ];
}

/** M · v */
export function turnVector(m: TurnMatrix, x: number, y: number, z: number): [number, number, number] {
  return [m[0] * x + m[1] * y + m[2] * z, m[3] * x + m[4] * y + m[5] * z, m[6] * x + m[7] * y + m[8] * z];
}

/** A point of a thing's own frame, scaled, turned and moved to the level's. */
export function placePoint(position: Vector3, m: TurnMatrix, scale: Vector3, local: Vector3): [number, number, number] {
  const turned = turnVector(m, local[0] * scale[0], local[1] * scale[1], local[2] * scale[2]);
  return [turned[0] + position[0], turned[1] + position[1], turned[2] + position[2]];
}

/** Whether a scale turns left into right: what it is put on shows its triangles the other way round. */
export function isMirrored([x, y, z]: Vector3): boolean {
  return (x < 0 !== y < 0) !== z < 0;
}

/** The greatest scale along an axis, mirrored or not. */
export function greatestScale([x, y, z]: Vector3): number {
  return Math.max(Math.abs(x), Math.abs(y), Math.abs(z));
}

/** Yaw of the direction (dx, dz) on the plan: 0 looks along −Z, 90 along −X. Degrees in (−180, 180]. */
export function yawOfDirection(dx: number, dz: number): number {
  return atan2Degrees(-dx, -dz);
}
