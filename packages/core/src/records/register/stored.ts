import { string } from 'yup';
import { id, later, name, order } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_REGISTER: StoredRecordSpec<'register'> = {
  fields: () => ({
    id: id(),
    name: name(),
    help: string().defined().max(2000),
    order: order(),
    kindsOf: later(string().oneOf(['volume', 'marker'])),
  }),
};
