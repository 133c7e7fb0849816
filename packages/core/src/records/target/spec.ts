import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const TARGET: RecordSpec<'target'> = {
  words: { one: 'target', many: 'targets' },
  table: 'targets.json',
  pointsAt: [],
  ids: (record) => record,
  asUser: calledBy('target'),
};
