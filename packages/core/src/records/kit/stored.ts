import { id, name, key, sha256 } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_KIT: StoredRecordSpec<'kit'> = {
  fields: () => ({ id: id(), name: name(), key: key(), mesh: sha256() }),
};
