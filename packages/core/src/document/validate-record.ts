import { ValidationError, type Schema } from 'yup';
import { CoreError } from '../errors';
import type { EditableKind, EditableOfKind } from '../model/records';
import { isRecordKind } from '../records';
import { ITEMS, isItemKind } from '../items';
import type { ItemKind } from '../model/items';
import { SHAPES } from './record-shapes';

/** One thing that is wrong with a record. */
export interface RecordFault {
  /** Where in the record, for example 'position[1]'; empty for the record as a whole. */
  readonly path: string;
  readonly message: string;
}

/** Whether a word names a kind of record or item. */
export function isEditableKind(kind: string): kind is EditableKind {
  return isRecordKind(kind) || isItemKind(kind);
}

/** All that is wrong with a record of a kind; empty when it is sound. */
export function recordFaults(kind: EditableKind, value: unknown): RecordFault[] {
  // Only a fault asks for the schema, which is made then.
  if (!SHAPES[kind].check(value)) return wordedFaults(SHAPES[kind].yup, value);
  return isItemKind(kind) ? wholeFaults(kind, value) : [];
}

/**
 * A record of a kind, known to be sound.
 * @throws CoreError 'RECORD_INVALID' naming kind, id and each fault with its path
 */
export function checkedRecord<K extends EditableKind>(kind: K, value: unknown): EditableOfKind[K] {
  if (isRecordOfKind(kind, value)) return value;
  const faults = recordFaults(kind, value);
  const named = typeof value === 'object' && value !== null && 'id' in value ? ` ${String(value.id)}` : '';
  throw new CoreError('RECORD_INVALID', `${kind}${named}: ${faults.map((f) => f.message).join('; ')}`, {
    kind,
    faults,
  });
}

function isRecordOfKind<K extends EditableKind>(kind: K, value: unknown): value is EditableOfKind[K] {
  return SHAPES[kind].check(value) && (!isItemKind(kind) || wholeFaults(kind, value).length === 0);
}

/** What the schema says of a value that the check has refused. */
function wordedFaults(schema: Schema, value: unknown): RecordFault[] {
  try {
    schema.validateSync(value, { abortEarly: false, strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return inner.slice(0, 20).map((e) => ({ path: e.path ?? '', message: e.message }));
  }
  return [{ path: '', message: 'is not as a record of its kind must be' }];
}

/** What is wrong with an item as a whole, once each of its fields is as it should be. */
function wholeFaults(kind: ItemKind, value: unknown): RecordFault[] {
  const faultOf = ITEMS[kind].fault as ((item: unknown) => RecordFault | undefined) | undefined;
  const fault = faultOf?.(value);
  return fault ? [fault] : [];
}
