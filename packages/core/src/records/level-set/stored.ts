import { text, orNull } from '../../fields/field';
import { id, name, order, moment } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_LEVEL_SET: StoredRecordSpec<'set'> = {
  fields: () => ({ id: id(), name: name(), parent: orNull(text()), order: order(), binned: moment() }),
};
