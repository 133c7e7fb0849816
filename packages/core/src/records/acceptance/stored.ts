import { text } from '../../fields/field';
import { name, day } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_ACCEPTANCE: StoredRecordSpec<'acceptance'> = {
  fields: () => ({
    id: text({ isFilled: true, max: 300 }),
    reason: text({ min: 1, max: 2000 }),
    until: day(),
    person: name(),
  }),
};
