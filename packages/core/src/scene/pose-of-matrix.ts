import { turnMatrix } from '../geometry/turn';
import type { TurnDegrees, Vector3 } from '../model/vector';
import { atan2Degrees } from '../numeric/trigonometry';
import type { Matrix } from '../geometry/matrix';

/** Cosines between axes that count as none: what is not sheared by more keeps its place to a millionth of its size. */
const SHEAR = 1e-7;
/** Less is flat: nothing of it could be seen from one side. */
const LEAST_SCALE = 1e-9;
/** Angles are kept to so many parts of a degree: what was 90 in the file is 90 again. */
const PARTS = 1e10;

/** How a placement stands. */
export interface Pose {
  readonly position: Vector3;
  readonly turn: TurnDegrees;
  /** Negative along x where it is mirrored. */
  readonly scale: Vector3;
}

/**
 * The pose that a matrix gives; 'sheared' where none does, as its axes are at no right angles, 'flat' where it has no extent along an axis.
 * @param m as nodes have them: turned, scaled and moved
 */
export function poseOfMatrix(m: Matrix): Pose | 'sheared' | 'flat' {
  const axes = [0, 4, 8].map((at): Vector3 => [m[at], m[at + 1], m[at + 2]]);
  const lengths = axes.map(([x, y, z]) => Math.sqrt(x * x + y * y + z * z));
  if (lengths.some((length) => !(length > LEAST_SCALE))) return 'flat';
  const units = axes.map((axis, i): Vector3 => [axis[0] / lengths[i], axis[1] / lengths[i], axis[2] / lengths[i]]);
  const [a, b, c] = units;
  if (Math.abs(dot(a, b)) > SHEAR || Math.abs(dot(b, c)) > SHEAR || Math.abs(dot(c, a)) > SHEAR) return 'sheared';
  const mirror = dot(cross(a, b), c) < 0 ? -1 : 1;
  const x: Vector3 = [a[0] * mirror, a[1] * mirror, a[2] * mirror];
  return {
    position: [m[12] + 0, m[13] + 0, m[14] + 0],
    turn: turnOfAxes(x, c),
    scale: [lengths[0] * mirror, lengths[1], lengths[2]],
  };
}

/** Yaw, pitch and roll of axes at right angles, right-handed: Ry(yaw) · Rx(pitch) · Rz(roll). @param x and `z` of length 1 */
function turnOfAxes(x: Vector3, z: Vector3): TurnDegrees {
  // The third column of the matrix is sin yaw cos pitch, −sin pitch, cos yaw cos pitch.
  const flat = Math.sqrt(z[0] * z[0] + z[2] * z[2]);
  const pitch = atan2Degrees(-z[1], flat);
  // Straight up or down yaw and roll are one: all of it is told as yaw.
  if (flat < 1e-9) return [round(atan2Degrees(-x[2], x[0])), round(pitch), 0];
  const yaw = atan2Degrees(z[0], z[2]);
  // Nearly so they are not known one by one: the roll is what is left after the yaw, whatever that is.
  const m = turnMatrix([yaw, pitch, 0]);
  const roll = atan2Degrees(dot([m[1], m[4], m[7]], x), dot([m[0], m[3], m[6]], x));
  return [round(yaw), round(pitch), round(roll)];
}

function round(degrees: number): number {
  return Math.round(degrees * PARTS) / PARTS + 0;
}

export function dot(a: Vector3, b: Vector3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

export function cross(a: Vector3, b: Vector3): Vector3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}
