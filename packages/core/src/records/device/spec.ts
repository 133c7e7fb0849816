import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

export const DEVICE: RecordSpec<'device'> = {
  words: { one: 'device', many: 'devices' },
  table: 'devices.json',
  pointsAt: [],
  ids: (record) => record,
  asUser: calledBy('device'),
};
