import {
  RECORDS_DOCUMENT,
  defaultValues,
  entriesOf,
  fieldsOf,
  ordersBetween,
  redirectLinks,
  registersInOrder,
  type Entry,
  type LinkUse,
  type Operation,
  type RecordTables,
  type Register,
} from '@stravel/core';
import { create, newId, remove, setRecordField } from '../../../edits/operations';

/** A new register behind the others. */
export function newRegister(tables: RecordTables, name: string): { register: Register; operations: Operation[] } {
  const [order] = ordersBetween(registersInOrder(tables).at(-1)?.order ?? null, null);
  const register: Register = { id: newId(), name, help: '', order };
  return { register, operations: [create(RECORDS_DOCUMENT, 'register', register)] };
}

/** A new entry at the end of a register, with the defaults of its fields. */
export function newEntry(
  tables: RecordTables,
  register: string,
  name: string,
): { entry: Entry; operations: Operation[] } {
  const [order] = ordersBetween(entriesOf(tables, register).at(-1)?.order ?? null, null);
  const entry: Entry = { id: newId(), register, name, order, values: defaultValues(fieldsOf(tables, register)) };
  return { entry, operations: [create(RECORDS_DOCUMENT, 'entry', entry)] };
}

/** Copies of entries, each behind its original. */
export function duplicateEntries(
  tables: RecordTables,
  entries: readonly Entry[],
): { copies: Entry[]; operations: Operation[] } {
  const copies = entries.map((entry): Entry => {
    const siblings = entriesOf(tables, entry.register);
    const next = siblings[siblings.findIndex(({ id }) => id === entry.id) + 1];
    return {
      ...entry,
      id: newId(),
      name: `${entry.name} copy`,
      order: ordersBetween(entry.order, next?.order ?? null)[0],
    };
  });
  return { copies, operations: copies.map((copy) => create(RECORDS_DOCUMENT, 'entry', copy)) };
}

/** Moves an entry one place up or down; nothing at an end. */
export function stepEntry(tables: RecordTables, entry: Entry, by: 1 | -1): Operation[] {
  const siblings = entriesOf(tables, entry.register);
  const at = siblings.findIndex(({ id }) => id === entry.id);
  const [low, high] = by > 0 ? [siblings[at + 1], siblings[at + 2]] : [siblings[at - 2], siblings[at - 1]];
  if (by > 0 ? !low : !high) return [];
  return [setRecordField('entry', entry, 'order', ordersBetween(low?.order ?? null, high?.order ?? null)[0])];
}

/** Deletes entries, their users led to another or cleared (null). Users that are deleted with them are left alone. */
export function deleteEntries(
  entries: readonly Entry[],
  uses: ReadonlyMap<string, readonly LinkUse[]>,
  to: string | null,
): Operation[] {
  const gone = new Set(entries.map(({ id }) => id));
  const released: Operation[] = [];
  // A record that uses several of them is changed step by step.
  const changed = new Map<string, Operation>();
  for (const { id } of entries) {
    for (const use of (uses.get(id) ?? []).filter(({ record }) => !gone.has(record.id))) {
      const key = `${use.record.id}\u0000${use.field.key}`;
      const before = changed.get(key);
      const record = before
        ? { ...use.record, values: { ...use.record.values, [use.field.key]: before.after } }
        : use.record;
      const [operation] = redirectLinks([{ ...use, record } as LinkUse], id, to);
      changed.set(key, operation);
      released.push(operation);
    }
  }
  return [...released, ...entries.map((entry) => remove(RECORDS_DOCUMENT, 'entry', entry))];
}
