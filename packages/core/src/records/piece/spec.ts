import { overIds } from '../../items/ids';
import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const PIECE: RecordSpec<'piece'> = {
  words: { one: 'piece', many: 'pieces' },
  ids: (record, each) => overIds(record, each, { kit: { to: 'kit', isStrict: true } }),
  asUser: calledBy('piece'),
};
