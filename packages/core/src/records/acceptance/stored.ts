import { string } from 'yup';
import { day, name } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_ACCEPTANCE: StoredRecordSpec<'acceptance'> = {
  fields: () => ({
    id: string().required().max(300),
    reason: string().required().min(1).max(2000),
    until: day(),
    person: name(),
  }),
};
