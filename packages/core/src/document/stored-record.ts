import { jsonOfText } from '../json/canonical-json';
import type { EditableKind, EditableOfKind } from '../model/records';
import type { JsonRecord } from './apply-operation';
import type { Operation } from './operation';

/**
 * A record as it is kept, JSON, as what it is. It was checked for its kind when it was written: by `checkedRecord`, or by
 * the desk that made it. The one place where what is kept is taken at its word; what comes from outside never is.
 */
export function storedRecord<K extends EditableKind>(_kind: K, record: JsonRecord): EditableOfKind[K] {
  return record as unknown as EditableOfKind[K];
}

/** Operations as the log keeps them, JSON. They were checked when they were logged. */
export function storedOperations(text: string): readonly Operation[] {
  return jsonOfText(text) as unknown as readonly Operation[];
}
