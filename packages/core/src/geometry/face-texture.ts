import type { BlockFace } from '../model/block';
import type { TurnDegrees, Vector3 } from '../model/vector';
import { turnMatrix } from './turn';

/** A face that looks up or down by more than this is laid out as a floor is: cosine of 45 degrees. */
const FLOOR = Math.SQRT1_2;

/**
 * The directions in which a surface runs along a face and up it, in the block's own frame. Up is +Y along the face; on floors and ceilings
 * −Z. Along is to the right of it, seen from outside.
 * @param normal outward, of length 1
 */
export function faceAxes(normal: Vector3): { readonly along: Vector3; readonly up: Vector3 } {
  const rise: Vector3 = Math.abs(normal[1]) > FLOOR ? [0, 0, -1] : [0, 1, 0];
  const away = rise[0] * normal[0] + rise[1] * normal[1] + rise[2] * normal[2];
  const flat = rise.map((value, k) => value - away * normal[k]);
  const length = Math.sqrt(flat[0] * flat[0] + flat[1] * flat[1] + flat[2] * flat[2]);
  const up: Vector3 = [flat[0] / length, flat[1] / length, flat[2] / length];
  return {
    up,
    along: [
      up[1] * normal[2] - up[2] * normal[1],
      up[2] * normal[0] - up[0] * normal[2],
      up[0] * normal[1] - up[1] * normal[0],
    ],
  };
}

/** A face with a surface of its own, or one that repeats every metre from the block's origin on. */
type Tiling = Pick<BlockFace, 'tileMetres' | 'offsetMetres'>;
const PLAIN: Tiling = { tileMetres: [1, 1], offsetMetres: [0, 0] };

/**
 * Texture coordinates of the corners of a face, as glTF has them: u to the right, v down, 1 for one repeat.
 * @param corners xyz triples in the level's frame, metres
 * @param normal outward, of length 1, in the level's frame
 */
export function faceTexture(
  corners: Float64Array,
  normal: Vector3,
  { position, turn }: { readonly position: Vector3; readonly turn: TurnDegrees },
  { tileMetres, offsetMetres }: Tiling = PLAIN,
): Float64Array {
  const m = turnMatrix(turn);
  // The transpose turns back into the block's frame.
  const own = (x: number, y: number, z: number): Vector3 => [
    m[0] * x + m[3] * y + m[6] * z,
    m[1] * x + m[4] * y + m[7] * z,
    m[2] * x + m[5] * y + m[8] * z,
  ];
  const { along, up } = faceAxes(own(...normal));
  const out = new Float64Array((corners.length / 3) * 2);
  for (let i = 0; i * 3 < corners.length; i++) {
    const [x, y, z] = own(
      corners[i * 3] - position[0],
      corners[i * 3 + 1] - position[1],
      corners[i * 3 + 2] - position[2],
    );
    out[i * 2] = (x * along[0] + y * along[1] + z * along[2] - offsetMetres[0]) / tileMetres[0];
    out[i * 2 + 1] = -(x * up[0] + y * up[1] + z * up[2] - offsetMetres[1]) / tileMetres[1];
  }
  return out;
}
