import { groupOf, id, ownValues, scale, turn, vector } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

export const STORED_PLACEMENT: StoredSpec<'placement'> = {
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
