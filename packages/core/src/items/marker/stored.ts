import { MARKER_KINDS } from '../../model/marker';
import { text, oneOf, later } from '../../fields/field';
import { id, vector, ownValues, groupOf, yaw } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_MARKER: StoredSpec<'marker'> = {
  packed: 'own form',
  fields: () => ({
    id: id(),
    kind: oneOf(MARKER_KINDS),
    position: vector(),
    turn: yaw(),
    entry: later(text({ max: 80 })),
    values: ownValues(),
    group: groupOf(),
  }),
};
