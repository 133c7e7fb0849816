import type { TableView } from '../../model/table-view';
import { idUses, overIds } from '../../items/ids';
import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

const IDS = idUses<TableView>({ register: { to: 'register', isStrict: true } });

export const TABLE_VIEW: RecordSpec<'tableView'> = {
  words: { one: 'view', many: 'views' },
  table: 'table-views.json',
  pointsAt: ['register'],
  ids: (record, each) => overIds(record, each, IDS),
  asUser: calledBy('view'),
};
