import { coordinate, groupOf, id, planPoint } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

export const STORED_DIVIDER: StoredSpec<'divider'> = {
  fields: () => ({
    id: id(),
    from: planPoint(),
    to: planPoint(),
    bottom: coordinate(),
    top: coordinate(),
    group: groupOf(),
  }),
};
