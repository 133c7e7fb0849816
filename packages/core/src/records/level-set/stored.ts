import { string } from 'yup';
import { id, moment, name, order } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_LEVEL_SET: StoredRecordSpec<'set'> = {
  fields: () => ({ id: id(), name: name(), parent: string().nullable().defined(), order: order(), binned: moment() }),
};
