import { overIds } from '../../items/ids';
import { calledBy, overRows } from '../named';
import type { RecordSpec } from '../record-spec';

export const LEVEL: RecordSpec<'level'> = {
  words: { one: 'level', many: 'levels' },
  ids: (record, each) => {
    const own = overIds(record, each, { set: { to: 'set', isStrict: true } });
    if (!own.strata) return own;
    const strata = overRows(own.strata, (entry) =>
      overIds(entry, each, { stratum: { to: 'stratum', isStrict: true } }),
    );
    return strata === own.strata ? own : { ...own, strata };
  },
  asUser: calledBy('level'),
};
