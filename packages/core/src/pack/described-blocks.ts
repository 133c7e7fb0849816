import { facesByPlane } from '../geometry/block-faces';
import { turnMatrix, turnVector } from '../geometry/turn';
import { packedGroup } from '../items/packed-form';
import { plainJson } from '../json/plain-json';
import type { Block } from '../model/block';
import type { Json } from '../model/json';
import type { BlockRanges } from './block-ranges';

/**
 * The blocks of a chunk as its level's file has them: where the triangles of each stand in the chunk's GLB, and its solid.
 * @param ranges those of the same blocks
 */
export function describedBlocks(blocks: readonly Block[], { ranges }: Pick<BlockRanges, 'ranges'>): Json[] {
  return blocks.map((block, i) => ({
    id: block.id,
    name: block.name,
    material: block.material,
    blocksView: block.sight === 'hides',
    triangles: plainJson(ranges[i]),
    planes: levelPlanes(block),
    ...describedFaces(block),
    ...packedGroup(block.group),
  }));
}

function describedFaces(block: Block): Record<string, Json> {
  const faces = [...facesByPlane(block).values()];
  if (faces.length === 0) return {};
  return {
    faces: faces.map(({ plane, surface, tileMetres, offsetMetres }) => ({
      plane,
      material: surface,
      tileMetres: [...tileMetres],
      offsetMetres: [...offsetMetres],
    })),
  };
}

/** Outward unit normal and offset of each plane in the level's frame: inside is n·p ≤ offset. */
function levelPlanes({ position, turn, planes }: Block): Json[] {
  const m = turnMatrix(turn);
  return planes.map(([x, y, z, offset]) => {
    const length = Math.sqrt(x * x + y * y + z * z);
    const n = turnVector(m, x / length, y / length, z / length).map((value) => value + 0);
    return [...n, offset / length + n[0] * position[0] + n[1] * position[1] + n[2] * position[2]];
  });
}
