import {
  RECORDS_DOCUMENT,
  valueAt,
  type Editable,
  type EditableKind,
  type Json,
  type JsonRecord,
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
  // Every record is plain data; its interface only lacks an index signature.
  return { document, kind, id: record.id, field, before: valueAt(record as unknown as JsonRecord, field), after };
}

/** Sets a field of one of the small records. */
export function setRecordField(kind: EditableKind, record: Editable, field: string, after: Json): Operation {
  return setField(RECORDS_DOCUMENT, kind, record, field, after);
}

export function create(document: string, kind: EditableKind, record: Editable): Operation {
  return { document, kind, id: record.id, field: null, before: null, after: record as unknown as Json };
}

export function remove(document: string, kind: EditableKind, record: Editable): Operation {
  return { document, kind, id: record.id, field: null, before: record as unknown as Json, after: null };
}

/** A whole number from 0 to under a limit, by chance. */
export function randomBelow(limit: number): number {
  return crypto.getRandomValues(new Uint32Array(1))[0] % limit;
}

/** An id for something new. */
export function newId(): string {
  return crypto.randomUUID();
}
