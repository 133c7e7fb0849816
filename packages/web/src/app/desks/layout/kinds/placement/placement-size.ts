import { vectorToMicro, type Box3, type Piece, type Placement, type Vector3 } from '@stravel/core';

function naturalSize({ bounds: { min, max } }: Piece): Vector3 {
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
}

/** Size of a placement in its own frame, metres; mirrored ones are as large. */
export function sizeOfPlacement({ scale }: Placement, piece: Piece): Vector3 {
  const natural = naturalSize(piece);
  return [natural[0] * Math.abs(scale[0]), natural[1] * Math.abs(scale[1]), natural[2] * Math.abs(scale[2])];
}

/** Box of a placement in its own frame, scaled and mirrored as it is, metres. */
export function ownBox({ scale }: Pick<Placement, 'scale'>, { bounds: { min, max } }: Pick<Piece, 'bounds'>): Box3 {
  const ends = (k: 0 | 1 | 2): number[] => [min[k] * scale[k], max[k] * scale[k]].sort((a, b) => a - b);
  const [x, y, z] = [ends(0), ends(1), ends(2)];
  return { min: [x[0], y[0], z[0]], max: [x[1], y[1], z[1]] };
}

/** Scale that gives a placement of a piece a size; it stays mirrored where it is. @param size metres, each above 0 */
export function scaleForSize(size: Vector3, piece: Piece, { scale }: Placement): Vector3 {
  const natural = naturalSize(piece);
  const along = (k: 0 | 1 | 2): number => (size[k] / natural[k]) * (scale[k] < 0 ? -1 : 1);
  return vectorToMicro([along(0), along(1), along(2)]);
}
