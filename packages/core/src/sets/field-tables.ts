import type { Field, FieldValue } from '../model/field';
import type { Level } from '../model/level';
import type { RecordTables } from '../model/records';
import type { Entry } from '../model/register';
import { compareOrdered } from '../model/ordered';
import { levelsInOrder } from './order';

/** A level or an entry: what has values of fields. */
export type FilledRecord = Level | Entry;
export type FilledKind = 'level' | 'entry';

/** Fields of the levels (register null) or of a register's entries, in order. */
export function fieldsOf(tables: Pick<RecordTables, 'field'>, register: string | null): Field[] {
  return Object.values(tables.field)
    .filter((field) => (field.register ?? null) === register)
    .sort(compareOrdered);
}

/** Entries of a register, in order. */
export function entriesOf(tables: Pick<RecordTables, 'entry'>, register: string): Entry[] {
  return Object.values(tables.entry)
    .filter((entry) => entry.register === register)
    .sort(compareOrdered);
}

/** Registers, in order. */
export function registersInOrder(tables: Pick<RecordTables, 'register'>): RecordTables['register'][string][] {
  return Object.values(tables.register).sort(compareOrdered);
}

/** All that a field has a value in: levels in order of play, then those in the bin; or a register's entries. */
export function recordsOfField(
  tables: Pick<RecordTables, 'level' | 'set' | 'entry'>,
  field: Pick<Field, 'register'>,
): FilledRecord[] {
  if (field.register) return entriesOf(tables, field.register);
  const inUse = levelsInOrder(tables);
  const seen = new Set(inUse.map(({ id }) => id));
  return [
    ...inUse,
    ...Object.values(tables.level)
      .filter(({ id }) => !seen.has(id))
      .sort(compareOrdered),
  ];
}

/** What a record holds in a field. */
export function valueOf(record: Pick<FilledRecord, 'values'>, field: Pick<Field, 'key'>): FieldValue {
  return Object.hasOwn(record.values, field.key) ? record.values[field.key] : null;
}

/** Whether a field holds nothing: no value, no text, or a list of none. */
export function isEmptyValue(value: FieldValue): boolean {
  return value === null || value === '' || (Array.isArray(value) && value.length === 0);
}

/** What makes two values the same where a field is unique: letters without regard to case. */
export function uniqueKey(value: FieldValue): string {
  return JSON.stringify(value).toLowerCase();
}

/** Values that a new level or entry starts with. */
export function defaultValues(fields: readonly Field[]): Record<string, FieldValue> {
  return Object.fromEntries(
    fields.flatMap(({ key, default: value, figure }) =>
      value === undefined || value === null || figure ? [] : [[key, value] as const],
    ),
  );
}
