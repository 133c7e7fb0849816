import { RECORD_KINDS, type CollectionContent, type DocumentState } from '@stravel/core';

/** The small records as they stand in their document. */
export function tablesOf(state: DocumentState): CollectionContent['records'] {
  // Each record was checked for its kind when it was written.
  return Object.fromEntries(
    RECORD_KINDS.map((kind) => [kind, Object.fromEntries(state.get(kind) ?? [])]),
  ) as unknown as CollectionContent['records'];
}
