import { id, vector, turn, scale, ownValues, groupOf } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_PLACEMENT: StoredSpec<'placement'> = {
  packed: 'own form',
  fields: () => ({
    id: id(),
    piece: id(),
    position: vector(),
    turn: turn(),
    scale: scale(),
    group: groupOf(),
    values: ownValues(),
  }),
};
