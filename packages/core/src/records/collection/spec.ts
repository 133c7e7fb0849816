import type { RecordSpec } from '../record-spec';
import { overList } from '../named';

export const COLLECTION: RecordSpec<'collection'> = {
  words: { one: 'settings', many: 'settings' },
  table: 'collection.json',
  pointsAt: ['device'],
  isSingle: true,
  namesCollection: true,
  keptOnRestore: ['name'],
  ids: (record, each) => {
    const { readiness } = record;
    if (!readiness) return record;
    const fields = overList(readiness.fields, each, { to: 'field', field: 'readiness.fields', isStrict: false });
    const devices = overList(readiness.devices, each, { to: 'device', field: 'readiness.devices', isStrict: true });
    return fields === readiness.fields && devices === readiness.devices
      ? record
      : { ...record, readiness: { ...readiness, fields, devices } };
  },
  asUser: () => 'the readiness rules',
};
