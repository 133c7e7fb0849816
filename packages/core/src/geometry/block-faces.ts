import type { Block, BlockFace } from '../model/block';
import type { BlockSurface } from './block-solid';

/** The surface of its own that each face of a block has; undefined where it has that of the block. */
export function ownSurfaces(
  { faces }: Pick<Block, 'faces'>,
  { planes }: Pick<BlockSurface, 'planes'>,
): (BlockFace | undefined)[] {
  if (!faces || faces.length === 0) return planes.map(() => undefined);
  const byPlane = new Map(faces.map((face) => [face.plane, face]));
  return planes.map((plane) => byPlane.get(plane));
}
