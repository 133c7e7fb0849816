import {
  entriesOf,
  fieldsOf,
  registersInOrder,
  heldAt,
  type Entry,
  type Field,
  type FieldValue,
  type RecordTables,
} from '@stravel/core';

type Tables = Pick<RecordTables, 'register' | 'entry' | 'field'>;

/** The entries that a register offers as kinds. */
export interface KindGroup {
  readonly register: string;
  readonly entries: readonly Entry[];
}

/** Kinds of volume or marker, by register. */
export function kindGroups(tables: Tables, of: 'volume' | 'marker'): KindGroup[] {
  return registersInOrder(tables)
    .filter(({ kindsOf }) => kindsOf === of)
    .map(({ id, name }) => ({ register: name, entries: entriesOf(tables, id) }));
}

/** One value of a thing: its own, or that of its kind. */
export interface OwnValueRow {
  readonly field: Field;
  readonly value: FieldValue;
  readonly isOwn: boolean;
}

/** The fields of a kind with a thing's values; what the thing does not have itself is as its kind has it. */
export function ownValueRows(
  tables: Tables,
  kind: string | null | undefined,
  values: Readonly<Record<string, FieldValue>> | null | undefined,
): OwnValueRow[] {
  const entry = kind ? heldAt(tables.entry, kind) : undefined;
  if (!entry) return [];
  return fieldsOf(tables, entry.register).map((field) => {
    const isOwn = values !== null && values !== undefined && Object.hasOwn(values, field.key);
    return {
      field,
      isOwn,
      value: isOwn ? values[field.key] : Object.hasOwn(entry.values, field.key) ? entry.values[field.key] : null,
    };
  });
}
