import { defaultValues, fieldsOf } from './field-tables';
import { newKey } from './keys';
import { ordersBetween } from './order';
import { compareOrdered } from '../model/ordered';
import type { Level } from '../model/level';
import type { RecordTables } from '../model/records';

/** A level without content, at the end of a set. @param id that it gets */
export function newLevelRecord(
  tables: Pick<RecordTables, 'level' | 'kit' | 'field'>,
  set: string,
  name: string,
  id: string,
): Level {
  const last = Object.values(tables.level)
    .filter((level) => level.set === set && level.binned === null)
    .sort(compareOrdered)
    .at(-1);
  const [order] = ordersBetween(last?.order ?? null, null);
  return {
    id,
    name,
    key: newKey(tables, 'level', name),
    set,
    order,
    purpose: 'play',
    code: '',
    values: defaultValues(fieldsOf(tables, null)),
    strata: [],
    openSky: false,
    bounds: null,
    binned: null,
  };
}
