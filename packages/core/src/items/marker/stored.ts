import { string } from 'yup';
import { MARKER_KINDS } from '../../model/marker';
import { finite, groupOf, id, later, ownValues, vector } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

export const STORED_MARKER: StoredSpec<'marker'> = {
  fields: () => ({
    id: id(),
    kind: string().required().oneOf(MARKER_KINDS),
    position: vector(),
    turn: finite(-36000, 36000),
    entry: later(string().max(80)),
    values: ownValues(),
    group: groupOf(),
  }),
};
