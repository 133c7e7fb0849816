import { idUses, overIds } from '../../items/ids';
import type { Level, StackEntry } from '../../model/level';
import { calledBy, overRows } from '../named';
import type { RecordSpec } from '../record-spec';

const SET = idUses<Level>({ set: { to: 'set', isStrict: true } });
const ENTRY = idUses<StackEntry>({ stratum: { to: 'stratum', isStrict: true } });

export const LEVEL: RecordSpec<'level'> = {
  words: { one: 'level', many: 'levels' },
  table: null,
  pointsAt: ['set', 'stratum'],
  ofLevel: 'The level',
  ids: (record, each) => {
    const own = overIds(record, each, SET);
    if (!own.strata) return own;
    const strata = overRows(own.strata, (entry) => overIds(entry, each, ENTRY));
    return strata === own.strata ? own : { ...own, strata };
  },
  asUser: calledBy('level'),
};
