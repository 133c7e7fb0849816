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

/** Corners and triangles that each material of a block has, in the order in which its faces come to them. */
export function surfaceByMaterial(
  block: Pick<Block, 'material' | 'faces' | 'planes'>,
  surface: BlockSurface,
): ReadonlyMap<string, { readonly corners: number; readonly triangles: number }> {
  const byMaterial = new Map<string, { corners: number; triangles: number }>();
  ownSurfaces(block, surface).forEach((own, i) => {
    const material = own?.surface ?? block.material;
    const part = byMaterial.get(material) ?? { corners: 0, triangles: 0 };
    byMaterial.set(material, part);
    const corners = surface.faces[i].length / 3;
    part.corners += corners;
    part.triangles += corners - 2;
  });
  return byMaterial;
}
