import type { CellGrid, VolumeRule } from '../../model/cell-grid';
import { idUses, overIds } from '../../items/ids';
import { overList, overRows } from '../named';
import type { RecordSpec } from '../record-spec';

const IDS = idUses<CellGrid>({ id: { to: 'level', isStrict: true } });
const OF_RULE = idUses<VolumeRule>({ volume: { to: 'volume' } });

export const CELL_GRID: RecordSpec<'cellGrid'> = {
  words: { one: 'grid of cells', many: 'cells' },
  table: 'cell-grids.json',
  pointsAt: ['level'],
  ofLevel: 'Its grid of cells',
  ids: (record, each) => {
    const own = overIds(record, each, IDS);
    const parts = {
      ...(own.resident && {
        resident: overList(own.resident, each, { to: 'stratum', field: 'resident', isStrict: false }),
      }),
      ...(own.volumeRules && { volumeRules: overRows(own.volumeRules, (rule) => overIds(rule, each, OF_RULE)) }),
    };
    const isSame =
      (parts.resident ?? own.resident) === own.resident && (parts.volumeRules ?? own.volumeRules) === own.volumeRules;
    return isSame ? own : { ...own, ...parts };
  },
  asUser: () => 'its cells',
};
