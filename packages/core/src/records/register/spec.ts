import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const REGISTER: RecordSpec<'register'> = {
  words: { one: 'register', many: 'registers' },
  table: 'registers.json',
  pointsAt: [],
  ids: (record) => record,
  asUser: calledBy('register'),
};
