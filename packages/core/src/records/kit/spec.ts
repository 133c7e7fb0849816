import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const KIT: RecordSpec<'kit'> = {
  words: { one: 'kit', many: 'kits' },
  table: null,
  pointsAt: [],
  meshFields: ['mesh'],
  ids: (record) => record,
  asUser: calledBy('kit'),
};
