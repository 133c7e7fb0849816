import type { Field } from '../../model/field';
import { overIds, type EachId } from '../../items/ids';
import { calledBy } from '../named';
import type { RecordSpec } from '../record-spec';

/** What the target of a field is: the register of its entries, or the set of its levels. */
function overTarget(record: Partial<Field>, each: EachId): Partial<Field> {
  const targets = { entry: 'register', level: 'set' } as const;
  const to = record.type === 'entry' || record.type === 'level' ? targets[record.type] : undefined;
  return to ? overIds(record, each, { target: { to, isStrict: true } }) : record;
}

export const FIELD: RecordSpec<'field'> = {
  words: { one: 'field', many: 'fields' },
  ids: (record, each) => {
    const own = overTarget(overIds(record, each, { register: { to: 'register', isStrict: true } }), each);
    return own.figure === 'placements' ? overIds(own, each, { counted: { to: 'piece', isStrict: true } }) : own;
  },
  asUser: calledBy('field'),
};
