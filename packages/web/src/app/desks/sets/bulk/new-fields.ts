import { fieldsOf, guessFieldType, ordersBetween, type Field, type RecordTables } from '@stravel/core';
import { newId } from '../../../edits/operations';
import { keyOf } from '../fields/field-draft';

/** A column of a file with its place in it. */
export interface FileColumn {
  readonly at: number;
  readonly title: string;
  readonly cells: readonly string[];
}

/** Fields for columns of a file, in their order, after those that the table has; each of the type that reads all its cells. */
export function fieldsForColumns(
  columns: readonly FileColumn[],
  tables: Pick<RecordTables, 'field'>,
  register: string | null,
): Field[] {
  const own = fieldsOf(tables, register);
  const taken = new Set(own.map(({ key }) => key));
  const orders = ordersBetween(own.at(-1)?.order ?? null, null, Math.max(1, columns.length));
  return columns.map(({ at, title, cells }, i) => {
    const name = title.trim() || `Column ${at + 1}`;
    const key = keyOf(name, taken);
    taken.add(key);
    return { id: newId(), key, name: name.slice(0, 200), order: orders[i], register, ...guessFieldType(cells) };
  });
}
