import { blockSurfaceIfAny, boxPlanes, prismPlanes, type BlockSurface } from '../../geometry/block-solid';
import { CoreError } from '../../errors';
import { turnMatrix, turnVector } from '../../geometry/turn';
import type { BlockPlane } from '../../model/block';
import type { Box3, Vector3 } from '../../model/vector';
import type { Volume, VolumeShape } from '../../model/volume';

/** Planes of a volume in its own frame; undefined for a sphere, and for an outline that makes no prism. */
export function volumePlanes(shape: VolumeShape): BlockPlane[] | undefined {
  if (shape.form === 'sphere') return undefined;
  if (shape.form === 'box') return boxPlanes(shape.size);
  try {
    return prismPlanes(shape.outline, shape.heightMetres);
  } catch (error) {
    if (error instanceof CoreError) return undefined;
    throw error;
  }
}

/** Faces of a volume in the level's frame; undefined when it has none. */
export function volumeSurface({
  id,
  position,
  turn,
  shape,
}: Pick<Volume, 'id' | 'position' | 'turn' | 'shape'>): BlockSurface | undefined {
  const planes = volumePlanes(shape);
  return planes && blockSurfaceIfAny({ id, position, turn, planes });
}

/** Upright bounds, metres; those of a faulty prism are its place. */
export function volumeBounds(volume: Pick<Volume, 'id' | 'position' | 'turn' | 'shape'>): Box3 {
  const { position, shape } = volume;
  if (shape.form === 'sphere') {
    const r = shape.radiusMetres;
    return {
      min: [position[0] - r, position[1] - r, position[2] - r],
      max: [position[0] + r, position[1] + r, position[2] + r],
    };
  }
  return volumeSurface(volume)?.bounds ?? { min: position, max: position };
}

/** Whether a point lies in a volume, its border counted in. */
export function isInVolume(
  { position, turn, shape }: Pick<Volume, 'position' | 'turn' | 'shape'>,
  point: Vector3,
): boolean {
  const off: Vector3 = [point[0] - position[0], point[1] - position[1], point[2] - position[2]];
  if (shape.form === 'sphere')
    return off[0] * off[0] + off[1] * off[1] + off[2] * off[2] <= shape.radiusMetres * shape.radiusMetres;
  const planes = volumePlanes(shape);
  if (!planes) return false;
  const m = turnMatrix(turn);
  return planes.every(([x, y, z, d]) => {
    const n = turnVector(m, x, y, z);
    return n[0] * off[0] + n[1] * off[1] + n[2] * off[2] <= d + 1e-9;
  });
}
