import { STRATUM_ROLES } from '../../model/stratum';
import { text, oneOf, list, orNull, later } from '../../fields/field';
import { id, name } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_STRATUM: StoredRecordSpec<'stratum'> = {
  fields: () => ({
    id: id(),
    name: name(),
    role: oneOf(STRATUM_ROLES),
    owner: orNull(text()),
    kit: later(text({ max: 80 })),
    assemblies: later(list(id(), { max: 10000 })),
  }),
};
