import { CoreError } from '../errors';
import { isItemKind, isOptionalField } from '../items';
import { isJsonTable, type Json } from '../model/json';
import type { Operation } from './operation';

/** A record as plain data. */
export type JsonRecord = { readonly [key: string]: Json };

/**
 * The value that an operation is about, as it stands in a record. Null when absent.
 * @param record undefined when there is none
 */
export function valueAt(record: JsonRecord | undefined, field: string | null): Json {
  if (!record) return null;
  if (field === null) return record;
  const [head, ...rest] = field.split('.');
  const outer = own(record, head);
  if (rest.length === 0) return outer;
  return isJsonTable(outer) ? own(outer, rest.join('.')) : null;
}

/**
 * The record after an operation; undefined when it was removed. Does not modify its input and does not compare `before`.
 * @throws CoreError 'RECORD_MISSING' when a field is to be changed on a record that is not there
 */
export function applyOperation(record: JsonRecord | undefined, operation: Operation): JsonRecord | undefined {
  const { field, after } = operation;
  if (field === null) {
    return isJsonTable(after) ? after : undefined;
  }
  if (!record) {
    throw new CoreError(
      'RECORD_MISSING',
      `edit: ${operation.kind} ${operation.id} does not exist, so its ${field} cannot be changed`,
      {
        kind: operation.kind,
        id: operation.id,
      },
    );
  }
  const [head, ...rest] = field.split('.');
  const isOptional = isItemKind(operation.kind) && isOptionalField(operation.kind, head);
  if (rest.length === 0) return isOptional && after === null ? without(record, head) : { ...record, [head]: after };
  const outer = own(record, head);
  const table = isJsonTable(outer) ? outer : {};
  const key = rest.join('.');
  if (!isOptional || after !== null) return { ...record, [head]: { ...table, [key]: after } };
  const left = without(table, key);
  return Object.keys(left).length === 0 ? without(record, head) : { ...record, [head]: left };
}

function without(record: JsonRecord, key: string): JsonRecord {
  return Object.fromEntries(Object.entries(record).filter(([one]) => one !== key));
}

function own(record: JsonRecord, key: string): Json {
  return Object.prototype.hasOwnProperty.call(record, key) ? record[key] : null;
}
