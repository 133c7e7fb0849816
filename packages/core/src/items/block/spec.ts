import { CoreError } from '../../errors';
import { blockSurface } from '../../geometry/block-solid';
import type { Block, BlockPlane } from '../../model/block';
import { IN_GROUP } from '../in-group';
import type { ItemFault, ItemSpec } from '../item-spec';
import { TURN_PLACE, variedTurn } from '../place';
import { STANDING } from '../traits';

const mirroredPlane = ([nx, ny, nz, offset]: BlockPlane): BlockPlane => [-nx + 0, ny, nz, offset];

/** Its planes must enclose something. */
function faultOfPlanes(block: Block): ItemFault | undefined {
  try {
    blockSurface(block);
    return undefined;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { path: 'planes', message: error.message };
  }
}

export const BLOCK: ItemSpec<'block'> = {
  words: { one: 'block', many: 'blocks' },
  traits: { ...STANDING, named: true },
  targetMax: 20000,
  optional: { group: true, faces: true },
  place: {
    ...TURN_PLACE,
    varied: variedTurn,
    mirrored: (block, mirroring) => ({
      ...TURN_PLACE.mirrored(block, mirroring),
      planes: block.planes.map(mirroredPlane),
    }),
  },
  fault: faultOfPlanes,
  name: ({ name }) => name,
  ...IN_GROUP,
  material: ({ material }) => material,
  alike: (a, b) => a.material === b.material && a.sight === b.sight,
};
