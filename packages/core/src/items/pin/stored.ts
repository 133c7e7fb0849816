import { boolean } from 'yup';
import { id, vector, whole } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

export const STORED_PIN: StoredSpec<'pin'> = {
  fields: () => ({
    id: id(),
    recipe: id(),
    column: whole(0, 2000),
    row: whole(0, 2000),
    columns: whole(1, 2000),
    rows: whole(1, 2000),
    hidden: boolean().required(),
    offset: vector(),
  }),
};
