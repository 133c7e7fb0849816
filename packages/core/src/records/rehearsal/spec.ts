import { overIds } from '../../items/ids';
import { levelName } from '../named';
import type { RecordSpec } from '../record-spec';

export const REHEARSAL: RecordSpec<'rehearsal'> = {
  words: { one: 'walk', many: 'walks' },
  ids: (record, each) =>
    overIds(record, each, { level: { to: 'level', isStrict: true }, device: { to: 'device', isStrict: true } }),
  asUser: ({ name, level }, { field }, tables) =>
    field === 'level' ? `the walk ${name}` : `the walk ${name} in ${levelName(tables, level)}`,
};
