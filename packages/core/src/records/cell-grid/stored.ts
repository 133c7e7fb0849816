import { array } from 'yup';
import type { CellGrid } from '../../model/cell-grid';
import { MAX_STRATA, finite, id, planPoint } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

const holdsLoadRule = (grid: unknown): boolean => {
  const { loadMetres, dropMetres, readyMetres } = grid as CellGrid;
  return readyMetres <= loadMetres && loadMetres <= dropMetres;
};

export const STORED_CELL_GRID: StoredRecordSpec<'cellGrid'> = {
  fields: () => ({
    id: id(),
    sizeMetres: finite(1, 10000),
    origin: planPoint(),
    loadMetres: finite(0, 10000),
    dropMetres: finite(0, 20000),
    readyMetres: finite(0, 10000),
    resident: array().of(id()).required().max(MAX_STRATA),
  }),
  rules: (schema) =>
    schema.test('rule', 'dropMetres must not be below loadMetres, nor loadMetres below readyMetres', holdsLoadRule),
};
