import { array, boolean, string } from 'yup';
import { PURPOSES } from '../../model/level';
import { MAX_STRATA, box, id, key, moment, name, order, shape, values } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

const stackEntry = shape({ stratum: id(), switchedOff: boolean().required() });

export const STORED_LEVEL: StoredRecordSpec<'level'> = {
  fields: () => ({
    id: id(),
    name: name(),
    key: key(),
    set: id(),
    order: order(),
    purpose: string().required().oneOf(PURPOSES),
    code: string().defined().max(40),
    values,
    strata: array().of(stackEntry).required().max(MAX_STRATA),
    openSky: boolean().required(),
    bounds: box().nullable().defined().default(undefined),
    binned: moment(),
  }),
};
