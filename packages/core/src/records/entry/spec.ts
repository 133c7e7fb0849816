import { overIds } from '../../items/ids';
import type { RecordSpec } from '../record-spec';

export const ENTRY: RecordSpec<'entry'> = {
  words: { one: 'entry', many: 'entries' },
  isKeptByValues: true,
  ids: (record, each) => overIds(record, each, { register: { to: 'register', isStrict: true } }),
  asUser: ({ name }) => `its entry ${name}`,
};
