import { array } from 'yup';
import { coordinate, finite, id, name, planPoint } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_REHEARSAL: StoredRecordSpec<'rehearsal'> = {
  fields: () => ({
    id: id(),
    level: id(),
    name: name(),
    knots: array().of(planPoint()).required().max(2000),
    floorMetres: coordinate(),
    speedMetresPerSecond: finite(0.01, 1000),
    device: id(),
  }),
};
