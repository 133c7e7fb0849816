import { id, coordinate, planPoint, groupOf } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_DIVIDER: StoredSpec<'divider'> = {
  packed: null,
  fields: () => ({
    id: id(),
    from: planPoint(),
    to: planPoint(),
    bottom: coordinate(),
    top: coordinate(),
    group: groupOf(),
  }),
};
