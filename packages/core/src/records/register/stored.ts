import { text, oneOf, later } from '../../fields/field';
import { id, name, order } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_REGISTER: StoredRecordSpec<'register'> = {
  fields: () => ({
    id: id(),
    name: name(),
    help: text({ max: 2000 }),
    order: order(),
    kindsOf: later(oneOf(['volume', 'marker'])),
  }),
};
