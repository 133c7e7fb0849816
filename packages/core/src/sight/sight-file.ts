import { strToU8 } from 'fflate';
import { CoreError } from '../errors';
import { blockSurfaceIfAny } from '../geometry/block-solid';
import { placedBounds } from '../layout/placement-bounds';
import type { Json } from '../model/json';
import type { Block } from '../model/block';
import type { Piece } from '../model/kit';
import type { PlacementColumns } from '../model/placement';
import { thingsOfPockets } from './pocket-things';
import type { SightResult } from './sight-result';
import { packHead } from '../model/pack-format';

/** What of a stratum is seen. */
interface SeenStratum {
  readonly blocks: readonly Block[];
  readonly placements: PlacementColumns;
}

/** The file of what is seen from where. @param strata with their sections laid in @param pieces all that are placed */
export function sightFile(
  strata: readonly SeenStratum[],
  sight: SightResult,
  pieces: ReadonlyMap<string, Piece>,
): Uint8Array {
  return strToU8(JSON.stringify(sightOf(strata, sight, pieces)));
}

/** Pockets that can be reached, what is seen from each, and which things touch each. */
function sightOf(strata: readonly SeenStratum[], sight: SightResult, pieces: ReadonlyMap<string, Piece>): Json {
  const ids: string[] = [];
  const bounds: number[] = [];
  for (const { blocks, placements } of strata) {
    for (const block of blocks) {
      const box = blockSurfaceIfAny(block)?.bounds;
      if (!box) continue;
      ids.push(block.id);
      bounds.push(...box.min, ...box.max);
    }
    for (let i = 0; i < placements.count; i++) {
      const piece = pieces.get(placements.pieces[i]);
      if (!piece) throw new CoreError('SIGHT_PIECE_MISSING', `sight: the piece ${placements.pieces[i]} does not exist`);
      ids.push(placements.ids[i]);
      placedBounds(placements.numbers, i, piece.bounds, bounds, bounds.length);
    }
  }
  const things = thingsOfPockets(sight.pockets, new Float64Array(bounds));
  return {
    ...packHead('stravel-pack-sight'),
    bounds: { min: [...sight.bounds.min], max: [...sight.bounds.max] },
    objects: ids,
    pockets: sight.pockets.map(({ planes, bounds: box, reached }, i) => ({
      reached,
      planes: planes.map((plane) => [...plane]),
      bounds: { min: [...box.min], max: [...box.max] },
      visible: [...sight.visible[i]],
      objects: things[i],
    })),
  };
}
