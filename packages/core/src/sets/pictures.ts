import type { RecordTables } from '../model/records';
import { recordsOfField, valueOf } from './field-tables';

/** Names of all assets that picture fields of levels and entries hold, sorted. */
export function pictureNames(tables: Pick<RecordTables, 'level' | 'set' | 'entry' | 'field'>): string[] {
  const names = new Set<string>();
  for (const field of Object.values(tables.field)) {
    if (field.type !== 'picture') continue;
    for (const record of recordsOfField(tables, field))
      for (const name of [valueOf(record, field)].flat()) if (typeof name === 'string' && name !== '') names.add(name);
  }
  return [...names].sort();
}
