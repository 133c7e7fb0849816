import {
  entriesOf,
  fieldsOf,
  registersInOrder,
  type Entry,
  type Field,
  type FieldScalar,
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
  const entry = kind ? (tables.entry[kind] as Entry | undefined) : undefined;
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

const PAIR = /^\s*([A-Za-z][A-Za-z0-9]{0,40})\s*=\s*(.*?)\s*$/;

/** Reads 'key=value; key=value'; what reads as a number is one. @returns what is wrong instead, naming the part */
export function readPairs(
  text: string,
):
  | { readonly values: Record<string, FieldScalar>; readonly fault?: undefined }
  | { readonly values?: undefined; readonly fault: string } {
  const values: Record<string, FieldScalar> = {};
  for (const part of text.split(';')) {
    if (part.trim() === '') continue;
    const match = PAIR.exec(part);
    if (!match) return { fault: `“${part.trim()}” is not a value; write key=value, the next after a semicolon.` };
    const number = Number(match[2]);
    values[match[1]] = match[2] !== '' && Number.isFinite(number) ? number : match[2];
  }
  return { values };
}

export function pairsText(values: Readonly<Record<string, FieldValue>> | null | undefined): string {
  return Object.entries(values ?? {})
    .map(([key, value]) => `${key}=${Array.isArray(value) ? value.join(', ') : String(value ?? '')}`)
    .join('; ');
}
