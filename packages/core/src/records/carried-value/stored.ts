import { CARRIED_COUNTS } from '../../model/unlock';
import { oneOf, finite } from '../../fields/field';
import { id, name, order } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_CARRIED_VALUE: StoredRecordSpec<'carriedValue'> = {
  fields: () => ({
    id: id(),
    name: name(),
    start: finite(-1e12, 1e12),
    counts: oneOf(CARRIED_COUNTS),
    order: order(),
  }),
};
