import type { Field } from '../../model/field';
import { idUses, overIds, type EachId } from '../../items/ids';
import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

const REGISTER = idUses<Field>({ register: { to: 'register', isStrict: true } });
const COUNTED = idUses<Field>({ counted: { to: 'piece', isStrict: true } });
const TARGETS = {
  entry: idUses<Field>({ target: { to: 'register', isStrict: true } }),
  level: idUses<Field>({ target: { to: 'set', isStrict: true } }),
};

/** What the target of a field is: the register of its entries, or the set of its levels. */
function overTarget(record: Partial<Field>, each: EachId): Partial<Field> {
  return record.type === 'entry' || record.type === 'level' ? overIds(record, each, TARGETS[record.type]) : record;
}

export const FIELD: RecordSpec<'field'> = {
  words: { one: 'field', many: 'fields' },
  table: 'fields.json',
  pointsAt: ['register', 'set', 'piece'],
  ids: (record, each) => {
    const own = overTarget(overIds(record, each, REGISTER), each);
    return own.figure === 'placements' ? overIds(own, each, COUNTED) : own;
  },
  asUser: calledBy('field'),
};
