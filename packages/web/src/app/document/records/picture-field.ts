import {
  RECORDS_DOCUMENT,
  fieldsOf,
  ordersBetween,
  type Field,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { create, newId } from '../../edits/operations';

/** The first field of the levels that holds one picture, or a new one with what makes it. */
export function pictureField(tables: RecordTables): {
  readonly field: Field;
  readonly operations: readonly Operation[];
} {
  const fields = fieldsOf(tables, null);
  const known = fields.find(({ type, list }) => type === 'picture' && !list);
  if (known) return { field: known, operations: [] };
  const [order] = ordersBetween(fields.at(-1)?.order ?? null, null);
  const taken = new Set(fields.map(({ key }) => key));
  const field: Field = {
    id: newId(),
    key: taken.has('picture') ? 'picture2' : 'picture',
    name: 'Picture',
    type: 'picture',
    choices: [],
    order,
  };
  return { field, operations: [create(RECORDS_DOCUMENT, 'field', field)] };
}
