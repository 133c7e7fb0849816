import { finite, later, list, shape, text } from '../../fields/field';
import { MAX_STRATA, id, planPoint } from '../../fields/known-fields';
import { MAX_CELLS_OF_VOLUME, type VolumeRule } from '../../model/cell-grid';
import type { StoredRecordSpec } from '../stored-spec';

/** Most rules of volumes in a level. */
const MAX_VOLUME_RULES = 1000;
/** A cell's key: column and row. */
const CELL_KEY = { matches: /^-?\d{1,6},-?\d{1,6}$/, message: 'a cell is a column and a row: 3,-1' };

export const STORED_CELL_GRID: StoredRecordSpec<'cellGrid'> = {
  fields: () => ({
    id: id(),
    sizeMetres: finite(1, 10000),
    origin: planPoint(),
    loadMetres: finite(0, 10000),
    dropMetres: finite(0, 20000),
    readyMetres: finite(0, 10000),
    resident: list(id(), { max: MAX_STRATA }),
    volumeRules: later(
      list(
        shape<VolumeRule>({ volume: id(), cells: list(text({ pattern: CELL_KEY }), { max: MAX_CELLS_OF_VOLUME }) }),
        { max: MAX_VOLUME_RULES },
      ),
    ),
  }),
  rules: () => [
    {
      name: 'rule',
      message: 'dropMetres must not be below loadMetres, nor loadMetres below readyMetres',
      holds: ({ loadMetres, dropMetres, readyMetres }) => readyMetres <= loadMetres && loadMetres <= dropMetres,
    },
    {
      name: 'volumeRules',
      message: 'volumeRules must name each volume once',
      holds: ({ volumeRules }) =>
        new Set((volumeRules ?? []).map(({ volume }) => volume)).size === (volumeRules ?? []).length,
    },
  ],
};
