import { BlockMeshes, madeSurface, surfaceOfBlock } from '../block-meshes';
import { boxesOfRecords, type PlateKind } from './plate-kind';

type BlockKind = PlateKind<'block'>;

const bounds: BlockKind['bounds'] = (block) => surfaceOfBlock(block)?.bounds;

export const BLOCK_PLATE: BlockKind = {
  rank: 0,
  bounds,
  boxes: boxesOfRecords(bounds, (block) => madeSurface(block) !== undefined),
  faces: (block) => surfaceOfBlock(block)?.faces,
  carries: true,
  stands: (table, into) => {
    for (const { position } of table.values()) into(position);
  },
  layer: (table, host) => new BlockMeshes(table, host),
};
