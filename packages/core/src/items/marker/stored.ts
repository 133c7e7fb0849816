import { MARKER_KINDS } from '../../model/marker';
import { text, oneOf, finite, later } from '../../fields/field';
import { id, vector, ownValues, groupOf } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_MARKER: StoredSpec<'marker'> = {
  fields: () => ({
    id: id(),
    kind: oneOf(MARKER_KINDS),
    position: vector(),
    turn: finite(-36000, 36000),
    entry: later(text({ max: 80 })),
    values: ownValues(),
    group: groupOf(),
  }),
};
