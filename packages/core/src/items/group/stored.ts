import { boolean, string } from 'yup';
import { GROUP_COLOURS } from '../../model/group';
import { day, id, name, shape } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

export const STORED_GROUP: StoredSpec<'group'> = {
  fields: () => ({
    id: id(),
    name: name(),
    parent: string().nullable().defined().max(80),
    category: string().defined().max(200),
    colour: string().required().oneOf(GROUP_COLOURS),
    switchedOff: boolean().required(),
    guard: string().defined().max(2000),
    aside: shape({ reason: string().required().min(1).max(2000), since: day() })
      .nullable()
      .defined()
      .default(undefined),
  }),
};
