import type { BlockPlane } from '../../model/block';
import { overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { TURN_PLACE } from '../place';

const mirroredPlane = ([nx, ny, nz, offset]: BlockPlane): BlockPlane => [-nx + 0, ny, nz, offset];

export const BLOCK: ItemSpec<'block'> = {
  words: { one: 'block', many: 'blocks' },
  traits: { local: true, assembled: true, linked: true, selected: true, copied: true, thing: true, named: true },
  optional: { group: true, faces: true },
  place: {
    ...TURN_PLACE,
    mirrored: (block, mirroring) => ({
      ...TURN_PLACE.mirrored(block, mirroring),
      planes: block.planes.map(mirroredPlane),
    }),
  },
  name: ({ name }) => name,
  group: ({ group }) => group ?? null,
  alike: (a, b) => a.material === b.material && a.sight === b.sight,
  ids: (fields, each) => overIds(fields, each, { group: { to: 'group' } }),
};
