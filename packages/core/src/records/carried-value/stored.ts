import { string } from 'yup';
import { CARRIED_COUNTS } from '../../model/unlock';
import { finite, id, name, order } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_CARRIED_VALUE: StoredRecordSpec<'carriedValue'> = {
  fields: () => ({
    id: id(),
    name: name(),
    start: finite(-1e12, 1e12),
    counts: string().required().oneOf(CARRIED_COUNTS),
    order: order(),
  }),
};
