import { array, string } from 'yup';
import { STRATUM_ROLES } from '../../model/stratum';
import { id, later, name } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_STRATUM: StoredRecordSpec<'stratum'> = {
  fields: () => ({
    id: id(),
    name: name(),
    role: string().required().oneOf(STRATUM_ROLES),
    owner: string().nullable().defined(),
    kit: later(string().max(80)),
    assemblies: later(array().of(id()).max(10000)),
  }),
};
