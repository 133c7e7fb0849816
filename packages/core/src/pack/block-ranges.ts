import { ownSurfaces } from '../geometry/block-faces';
import { blockSurfaceIfAny, type BlockSurface } from '../geometry/block-solid';
import type { Block, BlockFace } from '../model/block';

/** A block that encloses something, with its faces and what they are surfaced with. */
export interface SolidBlock {
  readonly block: Block;
  readonly surface: BlockSurface;
  readonly own: readonly (BlockFace | undefined)[];
}

/** Triangles of a block in the mesh of its chunk. */
export interface BlockRange {
  readonly material: string;
  /** Number of the part that has them, in order of the materials. */
  readonly primitive: number;
  readonly firstIndex: number;
  readonly indexCount: number;
}

/** Where the triangles of blocks stand that make one mesh, a part a material. */
export interface BlockRanges {
  /** Undefined for a block that encloses nothing. */
  readonly solids: readonly (SolidBlock | undefined)[];
  /** For each block a range a material; none for a block that encloses nothing. */
  readonly ranges: readonly (readonly BlockRange[])[];
  readonly parts: readonly { readonly material: string; readonly corners: number; readonly indices: number }[];
}

/** The parts of the mesh of some blocks, before it is made. */
export function blockRanges(blocks: readonly Block[]): BlockRanges {
  const counts = new Map<string, { corners: number; indices: number }>();
  const solids = blocks.map((block): SolidBlock | undefined => {
    const surface = blockSurfaceIfAny(block);
    return surface && { block, surface, own: ownSurfaces(block, surface) };
  });
  const found = solids.map((solid) => {
    const ranges = new Map<string, { firstIndex: number; indexCount: number }>();
    solid?.surface.faces.forEach((face, i) => {
      const material = materialOf(solid, i);
      const count = counts.get(material) ?? { corners: 0, indices: 0 };
      counts.set(material, count);
      const range = ranges.get(material) ?? { firstIndex: count.indices, indexCount: 0 };
      ranges.set(material, range);
      const indices = face.length - 6;
      count.corners += face.length / 3;
      count.indices += indices;
      range.indexCount += indices;
    });
    return ranges;
  });
  const names = [...counts.keys()].sort();
  const numbers = new Map(names.map((material, i) => [material, i]));
  return {
    solids,
    ranges: found.map((ranges) =>
      [...ranges]
        .map(([material, range]) => ({ material, primitive: numbers.get(material) ?? 0, ...range }))
        .sort((a, b) => a.primitive - b.primitive),
    ),
    parts: names.map((material) => ({ material, ...(counts.get(material) ?? { corners: 0, indices: 0 }) })),
  };
}

/** What a face of a block is surfaced with. */
export function materialOf({ block, own }: SolidBlock, face: number): string {
  return own[face]?.surface ?? block.material;
}
