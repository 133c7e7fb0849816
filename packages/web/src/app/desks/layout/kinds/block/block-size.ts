import { localBounds, stretchPlanes, vectorToMicro, type Block, type Vector3 } from '@stravel/core';

/** Extent of planes in their own frame, metres to the micrometre. */
export function sizeOfPlanes(planes: Block['planes']): Vector3 {
  const { min, max } = localBounds(planes);
  return vectorToMicro([max[0] - min[0], max[1] - min[1], max[2] - min[2]]);
}

/** Planes stretched about their own origin to a size. @param size metres, each above 0 */
export function resizedPlanes(planes: Block['planes'], size: Vector3): Block['planes'] {
  const now = sizeOfPlanes(planes);
  return stretchPlanes(planes, [size[0] / now[0], size[1] / now[1], size[2] / now[2]]);
}
