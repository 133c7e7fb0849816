import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const CARRIED_VALUE: RecordSpec<'carriedValue'> = {
  words: { one: 'carried value', many: 'carried values' },
  pointsAt: [],
  ids: (record) => record,
  asUser: calledBy('carried value'),
};
