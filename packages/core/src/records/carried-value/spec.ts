import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const CARRIED_VALUE: RecordSpec<'carriedValue'> = {
  words: { one: 'carried value', many: 'carried values' },
  table: 'carried-values.json',
  pointsAt: [],
  ids: (record) => record,
  asUser: calledBy('carried value'),
};
