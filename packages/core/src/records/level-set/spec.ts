import { overIds } from '../../items/ids';
import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const LEVEL_SET: RecordSpec<'set'> = {
  words: { one: 'set', many: 'sets' },
  ids: (record, each) => overIds(record, each, { parent: { to: 'set', isStrict: true } }),
  asUser: calledBy('set'),
};
