import type { LevelSet } from '../../model/level-set';
import { idUses, overIds } from '../../items/ids';
import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

const IDS = idUses<LevelSet>({ parent: { to: 'set', isStrict: true } });

export const LEVEL_SET: RecordSpec<'set'> = {
  words: { one: 'set', many: 'sets' },
  table: 'sets.json',
  pointsAt: ['set'],
  ids: (record, each) => overIds(record, each, IDS),
  asUser: calledBy('set'),
};
