import { overIds } from '../../items/ids';
import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const TABLE_VIEW: RecordSpec<'tableView'> = {
  words: { one: 'view', many: 'views' },
  ids: (record, each) => overIds(record, each, { register: { to: 'register', isStrict: true } }),
  asUser: calledBy('view'),
};
