import { whole, flag } from '../../fields/field';
import { id, vector } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_PIN: StoredSpec<'pin'> = {
  packed: null,
  fields: () => ({
    id: id(),
    recipe: id(),
    column: whole(0, 2000),
    row: whole(0, 2000),
    columns: whole(1, 2000),
    rows: whole(1, 2000),
    hidden: flag(),
    offset: vector(),
  }),
};
