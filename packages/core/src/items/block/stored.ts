import { BLOCK_SIGHTS, type BlockPlane, type BlockFace } from '../../model/block';
import { text, oneOf, finite, whole, list, row, shape, later } from '../../fields/field';
import { MAX_BLOCK_PLANES, id, name, vector, turn, planPoint, groupOf } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_BLOCK: StoredSpec<'block'> = {
  packed: 'own form',
  fields: () => ({
    id: id(),
    name: text({ max: 200 }),
    position: vector(),
    turn: turn(),
    planes: list(row<BlockPlane>(finite(-1e6, 1e6), finite(-1e6, 1e6), finite(-1e6, 1e6), finite(-1e9, 1e9)), {
      min: 4,
      max: MAX_BLOCK_PLANES,
    }),
    sight: oneOf(BLOCK_SIGHTS),
    material: name(),
    faces: later(
      list(
        shape<BlockFace>({
          plane: whole(0, MAX_BLOCK_PLANES - 1),
          surface: name(),
          tileMetres: row(finite(0.001, 1e5), finite(0.001, 1e5)),
          offsetMetres: planPoint(),
        }),
        { max: MAX_BLOCK_PLANES },
      ),
    ),
    group: groupOf(),
  }),
};
