import { vectorToMicro, type Piece, type Placement, type Vector3 } from '@stravel/core';

function naturalSize({ bounds: { min, max } }: Piece): Vector3 {
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
}

/** Size of a placement in its own frame, metres. */
export function sizeOfPlacement({ scale }: Placement, piece: Piece): Vector3 {
  const natural = naturalSize(piece);
  return [natural[0] * scale[0], natural[1] * scale[1], natural[2] * scale[2]];
}

/** Scale that gives a placement of a piece a size. @param size metres, each above 0 */
export function scaleForSize(size: Vector3, piece: Piece): Vector3 {
  const natural = naturalSize(piece);
  return vectorToMicro([size[0] / natural[0], size[1] / natural[1], size[2] / natural[2]]);
}
