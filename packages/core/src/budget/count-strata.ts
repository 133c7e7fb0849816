import type { RunContext } from '../context/run-context';
import { switchDistances } from '../detail/switch-distance';
import { CoreError } from '../errors';
import { greatestScale, isMirrored } from '../geometry/turn';
import { PLACEMENT_NUMBERS, threeAt } from '../items/placement/columns';
import { surfaceByMaterial } from '../geometry/block-faces';
import { blockSurfaceIfAny, type BlockSurface } from '../geometry/block-solid';
import type { Block } from '../model/block';
import { placedBounds } from '../layout/placement-bounds';
import type { StratumRole } from '../model/stratum';
import { INSTANCE_BYTES, blockBytes } from './cost-model';
import type { FiguresInput } from './figures-scene';
import type { Thing } from './pocket-figures';

/** What one stratum adds. */
export interface StratumFigures {
  readonly stratum: string;
  readonly name: string;
  readonly role: StratumRole;
  readonly shared: boolean;
  readonly blocks: number;
  readonly placements: number;
  /** Triangles of everything in it at full detail. */
  readonly triangles: number;
  /** Draw calls of everything in it: pieces by material, blocks by material. */
  readonly drawCalls: number;
  readonly memoryBytes: number;
}

/** Everything that is drawn in a level with its bounds and the ids of its objects, and what each stratum costs. @throws CoreError 'FIGURES_PIECE_MISSING' naming the placement, 'CANCELLED' */
export function countStrata(
  input: Omit<FiguresInput, 'sight'>,
  context: RunContext,
): { things: Thing[]; bounds: Float64Array; ids: string[]; strata: StratumFigures[] } {
  const pieces = new Map(input.pieces.map((piece) => [piece.id, piece]));
  const things: Thing[] = [];
  const bounds: number[] = [];
  const owners: string[] = [];
  const strata = input.strata.map((stratum, index): StratumFigures => {
    context.checkCancelled();
    let triangles = 0;
    let memoryBytes = 0;
    const drawn = new Map<string, number>();
    for (const block of stratum.blocks) {
      const surface = blockSurfaceIfAny(block);
      if (!surface) continue;
      triangles += surface.triangles;
      memoryBytes += blockBytes(surface);
      for (const [i, part] of partsOf(block, surface).entries()) {
        drawn.set(`material ${part.material}`, 1);
        things.push({
          what: 'blocks',
          id: part.material,
          name: part.material,
          steps: [{ triangles: part.triangles, materials: 1 }],
          distances: [0],
          stratum: index,
          ...(i > 0 ? { isPart: true } : {}),
        });
        owners.push(block.id);
        bounds.push(...surface.bounds.min, ...surface.bounds.max);
      }
    }
    const { count, ids, pieces: placed, numbers } = stratum.placements;
    for (let i = 0; i < count; i++) {
      const piece = pieces.get(placed[i]);
      if (!piece)
        throw new CoreError(
          'FIGURES_PIECE_MISSING',
          `figures: the placement ${ids[i]} uses the piece ${placed[i]}, which does not exist`,
        );
      const [full] = piece.steps;
      triangles += full.triangles;
      memoryBytes += INSTANCE_BYTES;
      const scale = threeAt(numbers, i * PLACEMENT_NUMBERS + 6);
      const mirrored = isMirrored(scale);
      drawn.set(`piece ${mirrored ? 'mirrored ' : ''}${piece.id}`, full.materials);
      const distances = switchDistances(piece.steps, input.view, greatestScale(scale));
      const { id, name, steps } = piece;
      things.push({ what: 'piece', id, name, steps, distances, stratum: index, ...(mirrored ? { mirrored } : {}) });
      owners.push(ids[i]);
      placedBounds(numbers, i, piece.bounds, bounds, bounds.length);
    }
    const drawCalls = [...drawn.values()].reduce((sum, calls) => sum + calls, 0);
    return {
      stratum: stratum.id,
      name: stratum.name,
      role: stratum.role,
      shared: stratum.shared,
      blocks: stratum.blocks.length,
      placements: count,
      triangles,
      drawCalls,
      memoryBytes,
    };
  });
  return { things, bounds: new Float64Array(bounds), ids: owners, strata };
}

/** The triangles of a block by material, the first with the greatest part of it. */
function partsOf(
  block: Block,
  surface: BlockSurface,
): readonly { readonly material: string; readonly triangles: number }[] {
  return [...surfaceByMaterial(block, surface)]
    .map(([material, { triangles }]) => ({ material, triangles }))
    .sort((a, b) => b.triangles - a.triangles || (a.material < b.material ? -1 : 1));
}
