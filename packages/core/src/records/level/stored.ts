import { PURPOSES, type StackEntry } from '../../model/level';
import { text, oneOf, flag, list, shape, orNull } from '../../fields/field';
import { MAX_STRATA, id, name, key, order, moment, box, values } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

const stackEntry = shape<StackEntry>({ stratum: id(), switchedOff: flag() });

export const STORED_LEVEL: StoredRecordSpec<'level'> = {
  fields: () => ({
    id: id(),
    name: name(),
    key: key(),
    set: id(),
    order: order(),
    purpose: oneOf(PURPOSES),
    code: text({ max: 40 }),
    values: values(),
    strata: list(stackEntry, { max: MAX_STRATA }),
    openSky: flag(),
    bounds: orNull(box()),
    binned: moment(),
  }),
};
