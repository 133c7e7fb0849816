import type { CellGrid } from '../../model/cell-grid';
import { idUses, overIds } from '../../items/ids';
import { overList } from '../named';
import type { RecordSpec } from '../record-spec';

const IDS = idUses<CellGrid>({ id: { to: 'level', isStrict: true } });

export const CELL_GRID: RecordSpec<'cellGrid'> = {
  words: { one: 'grid of cells', many: 'cells' },
  table: 'cell-grids.json',
  pointsAt: ['level'],
  ofLevel: 'Its grid of cells',
  ids: (record, each) => {
    const own = overIds(record, each, IDS);
    if (!own.resident) return own;
    const resident = overList(own.resident, each, { to: 'stratum', field: 'resident', isStrict: false });
    return resident === own.resident ? own : { ...own, resident };
  },
  asUser: () => 'its cells',
};
