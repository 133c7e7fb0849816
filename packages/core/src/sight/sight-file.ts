import { strToU8 } from 'fflate';
import { blockSurfaceIfAny } from '../geometry/block-solid';
import type { LevelContent } from '../layout/level-content';
import { placementBounds } from '../layout/placement-bounds';
import type { Json } from '../model/json';
import type { Piece } from '../model/kit';
import { thingsOfPockets } from './pocket-things';
import type { SightResult } from './sight-result';

/** The file of what is seen from where. @param content with its sections laid in */
export function sightFile(
  content: LevelContent,
  sight: SightResult,
  pieces: Readonly<Record<string, Piece>>,
): Uint8Array {
  return strToU8(JSON.stringify(sightOf(content, sight, pieces)));
}

/** Pockets that can be reached, what is seen from each, and which things touch each. */
function sightOf({ strata }: LevelContent, sight: SightResult, pieces: Readonly<Record<string, Piece>>): Json {
  const ids: string[] = [];
  const bounds: number[] = [];
  for (const { content } of strata) {
    for (const block of content.block) {
      const box = blockSurfaceIfAny(block)?.bounds;
      if (!box) continue;
      ids.push(block.id);
      bounds.push(...box.min, ...box.max);
    }
    for (const placement of content.placement) {
      const box = placementBounds(placement, pieces[placement.piece].bounds);
      ids.push(placement.id);
      bounds.push(...box.min, ...box.max);
    }
  }
  const things = thingsOfPockets(sight.pockets, new Float64Array(bounds));
  return {
    format: 'stravel-pack-sight',
    version: 1,
    bounds: { min: [...sight.bounds.min], max: [...sight.bounds.max] },
    things: ids,
    pockets: sight.pockets.map(({ planes, bounds: box, reached }, i) => ({
      reached,
      planes: planes.map((plane) => [...plane]),
      bounds: { min: [...box.min], max: [...box.max] },
      visible: [...sight.visible[i]],
      things: things[i],
    })),
  };
}
