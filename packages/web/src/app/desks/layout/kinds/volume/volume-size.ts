import { vectorToMicro, type Vector3, type Volume, type VolumeShape } from '@stravel/core';

/** Size of a volume in its own frame, metres. */
export function sizeOfVolume({ shape }: Pick<Volume, 'shape'>): Vector3 {
  if (shape.form === 'box') return shape.size;
  if (shape.form === 'sphere') return [shape.radiusMetres * 2, shape.radiusMetres * 2, shape.radiusMetres * 2];
  const along = (k: 0 | 1): number =>
    Math.max(...shape.outline.map((point) => point[k])) - Math.min(...shape.outline.map((point) => point[k]));
  return vectorToMicro([along(0), shape.heightMetres, along(1)]);
}

/** The shape of a volume made to a size; a sphere takes that one which was changed for all three. */
export function resizedShape(volume: Pick<Volume, 'shape'>, size: Vector3): VolumeShape {
  const { shape } = volume;
  const now = sizeOfVolume(volume);
  if (shape.form === 'box') return { ...shape, size };
  if (shape.form === 'sphere')
    return { ...shape, radiusMetres: (size.find((value, k) => value !== now[k]) ?? size[0]) / 2 };
  return {
    ...shape,
    heightMetres: size[1],
    outline: shape.outline.map(([x, z]) => [(x * size[0]) / now[0], (z * size[2]) / now[2]]),
  };
}
