import { finite, list } from '../../fields/field';
import { id, name, coordinate, planPoint } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_REHEARSAL: StoredRecordSpec<'rehearsal'> = {
  fields: () => ({
    id: id(),
    level: id(),
    name: name(),
    knots: list(planPoint(), { max: 2000 }),
    floorMetres: coordinate(),
    speedMetresPerSecond: finite(0.01, 1000),
    device: id(),
  }),
};
