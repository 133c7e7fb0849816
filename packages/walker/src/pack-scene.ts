import type { BlockRange, PackObjects } from './pack-objects';
import type { PackLevelFiles } from './pack-level-files';

/** What a view draws of a level of a pack; objects by their numbers. */
export interface PackScene {
  /** Pieces: path of their GLB, and the node of each LOD. */
  readonly pieces: readonly { readonly meshes: string; readonly nodes: readonly string[] }[];
  /** Number of each object's piece; -1 for a block. */
  readonly piece: Int32Array;
  /** Three numbers each object, four, three. */
  readonly translations: Float64Array;
  readonly rotations: Float64Array;
  readonly scales: Float64Array;
  /** Path of the GLB of blocks of each object that is one; null where the chunk has none. */
  readonly geometry: readonly (string | null)[];
  /** Of each object that is a block; none of others. */
  readonly ranges: readonly (readonly BlockRange[])[];
}

export function packScene({ chunks }: PackLevelFiles, { all }: PackObjects): PackScene {
  const pieces: { meshes: string; nodes: string[] }[] = [];
  const numbers = new Map<string, number>();
  const count = all.length;
  const [translations, rotations] = [new Float64Array(count * 3), new Float64Array(count * 4)];
  const scales = new Float64Array(count * 3).fill(1);
  const piece = new Int32Array(count).fill(-1);
  const geometry: (string | null)[] = [];
  const ranges: (readonly BlockRange[])[] = [];
  all.forEach((object, i) => {
    const chunk = chunks[object.chunk];
    geometry.push(chunk?.geometry ?? null);
    if (!object.piece) {
      ranges.push((chunk?.blocks[object.number]['triangles'] ?? []) as readonly BlockRange[]);
      return;
    }
    ranges.push([]);
    const { id, meshes, steps } = object.piece.of;
    const known = numbers.get(id) ?? pieces.push({ meshes, nodes: steps.map(({ node }) => node) }) - 1;
    numbers.set(id, known);
    piece[i] = known;
    const placed = chunk?.placements;
    if (!placed) return;
    const at = object.number;
    translations.set(placed.translations.subarray(at * 3, at * 3 + 3), i * 3);
    rotations.set(placed.rotations.subarray(at * 4, at * 4 + 4), i * 4);
    scales.set(placed.scales.subarray(at * 3, at * 3 + 3), i * 3);
  });
  return { pieces, piece, translations, rotations, scales, geometry, ranges };
}
