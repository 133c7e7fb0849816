import type { Rehearsal } from '../../model/rehearsal';
import { idUses, overIds } from '../../items/ids';
import { levelName } from '../named';
import type { RecordSpec } from '../record-spec';

const IDS = idUses<Rehearsal>({ level: { to: 'level', isStrict: true }, device: { to: 'device', isStrict: true } });

export const REHEARSAL: RecordSpec<'rehearsal'> = {
  words: { one: 'walk', many: 'walks' },
  table: 'rehearsals.json',
  pointsAt: ['level', 'device'],
  ids: (record, each) => overIds(record, each, IDS),
  asUser: ({ name, level }, { field }, tables) =>
    field === 'level' ? `the walk ${name}` : `the walk ${name} in ${levelName(tables, level)}`,
};
