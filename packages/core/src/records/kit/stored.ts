import { id, key, name, sha256 } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_KIT: StoredRecordSpec<'kit'> = {
  fields: () => ({ id: id(), name: name(), key: key(), mesh: sha256() }),
};
