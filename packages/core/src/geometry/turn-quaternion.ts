import type { TurnDegrees } from '../model/vector';
import { turnMatrix } from './turn';

/** A turn as a unit quaternion x y z w, w not below 0, as glTF 2.0 has it. Source: Shepperd, Quaternion from rotation matrix, 1978. */
export function turnQuaternion(turn: TurnDegrees): [number, number, number, number] {
  const m = turnMatrix(turn);
  const trace = m[0] + m[4] + m[8];
  const squares = [1 + 2 * m[0] - trace, 1 + 2 * m[4] - trace, 1 + 2 * m[8] - trace, 1 + trace];
  const k = squares.indexOf(Math.max(...squares));
  const q: [number, number, number, number] = [0, 0, 0, 0];
  if (k === 3) q.splice(0, 4, m[7] - m[5], m[2] - m[6], m[3] - m[1], squares[3]);
  else if (k === 0) q.splice(0, 4, squares[0], m[1] + m[3], m[2] + m[6], m[7] - m[5]);
  else if (k === 1) q.splice(0, 4, m[1] + m[3], squares[1], m[5] + m[7], m[2] - m[6]);
  else q.splice(0, 4, m[2] + m[6], m[5] + m[7], squares[2], m[3] - m[1]);
  const length = Math.sqrt(q[0] * q[0] + q[1] * q[1] + q[2] * q[2] + q[3] * q[3]) * (q[3] < 0 ? -1 : 1);
  return [q[0] / length + 0, q[1] / length + 0, q[2] / length + 0, q[3] / length + 0];
}
