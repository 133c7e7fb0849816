import { id, name, order, values } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_ENTRY: StoredRecordSpec<'entry'> = {
  fields: () => ({ id: id(), register: id(), name: name(), order: order(), values: values() }),
};
