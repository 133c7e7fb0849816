import { blockSurfaceIfAny } from '../geometry/block-solid';
import { turnMatrix, turnVector } from '../geometry/turn';
import { packedGroup } from '../items/packed-form';
import type { Block } from '../model/block';
import type { Json } from '../model/json';

/**
 * The blocks of a chunk as its level's file has them: where the triangles of each stand in the chunk's GLB, and its solid.
 * @param blocks in the order in which `meshOfBlocks` takes them
 */
export function describedBlocks(blocks: readonly Block[]): Json[] {
  const solid = blocks.map((block) => ({ block, surface: blockSurfaceIfAny(block) }));
  const materials = [...new Set(solid.flatMap(({ block, surface }) => (surface ? [block.material] : [])))].sort();
  const next = materials.map(() => 0);
  return solid.map(({ block, surface }) => {
    const part = materials.indexOf(block.material);
    const first = next[part];
    const count = (surface?.triangles ?? 0) * 3;
    if (surface) next[part] += count;
    return {
      id: block.id,
      name: block.name,
      material: block.material,
      blocksView: block.sight === 'hides',
      // A block that encloses nothing has no triangles.
      triangles: surface ? { primitive: part, firstIndex: first, indexCount: count } : null,
      planes: levelPlanes(block),
      ...packedGroup(block.group),
    };
  });
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
