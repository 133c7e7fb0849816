import { finite, list } from '../../fields/field';
import { MAX_STRATA, id, planPoint } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_CELL_GRID: StoredRecordSpec<'cellGrid'> = {
  fields: () => ({
    id: id(),
    sizeMetres: finite(1, 10000),
    origin: planPoint(),
    loadMetres: finite(0, 10000),
    dropMetres: finite(0, 20000),
    readyMetres: finite(0, 10000),
    resident: list(id(), { max: MAX_STRATA }),
  }),
  rules: () => [
    {
      name: 'rule',
      message: 'dropMetres must not be below loadMetres, nor loadMetres below readyMetres',
      holds: ({ loadMetres, dropMetres, readyMetres }) => readyMetres <= loadMetres && loadMetres <= dropMetres,
    },
  ],
};
