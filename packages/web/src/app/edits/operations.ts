import {
  RECORDS_DOCUMENT,
  plainJson,
  plainRecord,
  valueAt,
  type Editable,
  type EditableKind,
  type Json,
  type Operation,
} from '@stravel/core';

/** Sets a field of a record or an item. `record` is how it stands now. */
export function setField(
  document: string,
  kind: EditableKind,
  record: Editable,
  field: string,
  after: Json,
): Operation {
  return { document, kind, id: record.id, field, before: valueAt(plainRecord<Editable>(record), field), after };
}

/** Sets a field of one of the small records. */
export function setRecordField(kind: EditableKind, record: Editable, field: string, after: Json): Operation {
  return setField(RECORDS_DOCUMENT, kind, record, field, after);
}

export function create(document: string, kind: EditableKind, record: Editable): Operation {
  return { document, kind, id: record.id, field: null, before: null, after: plainJson<Editable>(record) };
}

export function remove(document: string, kind: EditableKind, record: Editable): Operation {
  return { document, kind, id: record.id, field: null, before: plainJson<Editable>(record), after: null };
}

/** A whole number from 0 to under a limit, by chance. */
export function randomBelow(limit: number): number {
  return crypto.getRandomValues(new Uint32Array(1))[0] % limit;
}

/** An id for something new. */
export function newId(): string {
  return crypto.randomUUID();
}
