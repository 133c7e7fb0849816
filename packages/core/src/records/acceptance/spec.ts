import type { RecordSpec } from '../record-spec';

export const ACCEPTANCE: RecordSpec<'acceptance'> = {
  words: { one: 'accepted finding', many: 'accepted findings' },
  table: 'acceptances.json',
  pointsAt: [],
  isNamedByFinding: true,
  ids: (record) => record,
  asUser: () => 'an accepted finding',
};
