import type { Block, BlockFace } from '../model/block';
import type { BlockSurface } from './block-solid';

/** The faces that a block has a surface for: the last of each plane, and none of a plane that it has not. */
export function facesByPlane({ faces, planes }: Pick<Block, 'faces' | 'planes'>): ReadonlyMap<number, BlockFace> {
  const known = (faces ?? []).filter(({ plane }) => plane < planes.length);
  return new Map(known.map((face) => [face.plane, face]));
}

/** The surface of its own that each face of a block has; undefined where it has that of the block. */
export function ownSurfaces(
  block: Pick<Block, 'faces' | 'planes'>,
  { planes }: Pick<BlockSurface, 'planes'>,
): (BlockFace | undefined)[] {
  if (!block.faces?.length) return planes.map(() => undefined);
  const byPlane = facesByPlane(block);
  return planes.map((plane) => byPlane.get(plane));
}
