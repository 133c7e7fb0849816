import type { Entry } from '../../model/register';
import { idUses, overIds } from '../../items/ids';
import type { RecordSpec } from '../record-spec';

const IDS = idUses<Entry>({ register: { to: 'register', isStrict: true } });

export const ENTRY: RecordSpec<'entry'> = {
  words: { one: 'entry', many: 'entries' },
  table: 'entries.json',
  pointsAt: ['register'],
  isKeptByValues: true,
  ids: (record, each) => overIds(record, each, IDS),
  asUser: ({ name }) => `its entry ${name}`,
};
