import { CoreError } from '../errors';
import { finding, type Finding } from '../findings';
import { blockSolid } from '../geometry/block-solid';
import type { PlaneTable } from '../geometry/plane-table';
import type { Polyhedron } from '../geometry/polyhedron';
import type { Box3 } from '../model/vector';
import type { SightInput } from './sight-input';

/** The blocks as solids of one table, and what is wrong with the others. */
export interface CollectedSolids {
  readonly solids: readonly { readonly id: string; readonly solid: Polyhedron }[];
  readonly findings: readonly Finding[];
  readonly bounds: Box3 | null;
}

/** Welds all blocks into one table. A block whose planes enclose nothing becomes a finding and hides nothing. */
export function collectSolids(table: PlaneTable, input: SightInput, check: () => void): CollectedSolids {
  const solids: { id: string; solid: Polyhedron }[] = [];
  const findings: Finding[] = [];
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  input.blocks.forEach((block, i) => {
    if (i % 256 === 0) check();
    try {
      const solid = blockSolid(table, block);
      solids.push({ id: block.id, solid });
      for (let k = 0; k < 3; k++) {
        min[k] = Math.min(min[k], solid.bounds[k]);
        max[k] = Math.max(max[k], solid.bounds[k + 3]);
      }
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      findings.push(
        finding({
          code: 'BLOCK_UNUSABLE',
          desk: 'sight',
          severity: 'error',
          subject: block.id,
          place: { item: block.id, position: block.position },
          message: error.message,
          why: 'It blocks no view and cannot be drawn.',
          fixes: [{ id: 'remove-item', label: 'Delete the block' }],
        }),
      );
    }
  });
  return { solids, findings, bounds: solids.length > 0 ? { min, max } : null };
}
