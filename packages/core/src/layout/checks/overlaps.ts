import type { RunContext } from '../../context/run-context';
import { blockSurfaceIfAny } from '../../geometry/block-solid';
import type { Block } from '../../model/block';
import type { Vector3 } from '../../model/vector';
import { BoxTree } from '../../spatial/box-tree';
import { commonSolid } from '../blocks/block-edits';

/** A block with where it comes from. */
export interface SourcedBlock {
  readonly level: string;
  readonly stratum: string;
  readonly block: Block;
}

/** Two blocks of different levels or strata that fill the same space. */
export interface Overlap {
  readonly first: Omit<SourcedBlock, 'block'> & { readonly id: string; readonly name: string };
  readonly second: Omit<SourcedBlock, 'block'> & { readonly id: string; readonly name: string };
  readonly cubicMetres: number;
  /** In the middle of both bounds' common part. */
  readonly position: Vector3;
}

export interface OverlapsInput {
  readonly blocks: readonly SourcedBlock[];
  /** Common space of less than this is none, cubic metres: walls that meet at a corner. */
  readonly leastCubicMetres: number;
}

/** Most overlaps that are told; the largest. */
export const MAX_OVERLAPS = 1000;

/**
 * Blocks of different strata that fill the same space, largest first. Blocks of one stratum may overlap as they like, and so
 * may a stratum with itself when two levels share it.
 * @throws CoreError 'CANCELLED'
 * Cost: O(n log n) for finding pairs by bounds, then each pair's common solid.
 */
export function findOverlaps({ blocks, leastCubicMetres }: OverlapsInput, context: RunContext): Overlap[] {
  const solid = blocks.flatMap((sourced) => {
    const bounds = blockSurfaceIfAny(sourced.block)?.bounds;
    return bounds ? [{ sourced, bounds }] : [];
  });
  const tree = new BoxTree(Float64Array.from(solid.flatMap(({ bounds }) => [...bounds.min, ...bounds.max])));
  const found: Overlap[] = [];
  solid.forEach(({ sourced: first, bounds }, i) => {
    if (i % 256 === 0) {
      context.checkCancelled();
      context.progress(i / solid.length, `${found.length} found`);
    }
    for (const j of tree.inBox(bounds.min, bounds.max)) {
      const second = solid[j].sourced;
      if (j <= i || second.stratum === first.stratum) continue;
      const cubicMetres = commonSolid(first.block, second.block);
      if (cubicMetres < leastCubicMetres) continue;
      const other = solid[j].bounds;
      const middle = (k: number): number =>
        (Math.max(bounds.min[k], other.min[k]) + Math.min(bounds.max[k], other.max[k])) / 2;
      const named = ({ level, stratum, block }: SourcedBlock): Overlap['first'] => ({
        level,
        stratum,
        id: block.id,
        name: block.name,
      });
      found.push({
        first: named(first),
        second: named(second),
        cubicMetres,
        position: [middle(0), middle(1), middle(2)],
      });
    }
  });
  return found
    .sort((a, b) => b.cubicMetres - a.cubicMetres || (a.first.id + a.second.id < b.first.id + b.second.id ? -1 : 1))
    .slice(0, MAX_OVERLAPS);
}
