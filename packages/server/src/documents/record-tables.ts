import { tablesOfKept, type CollectionContent, type DocumentState } from '@stravel/core';

/** The small records as they stand in their document. */
export function tablesOf(state: DocumentState): CollectionContent['records'] {
  return tablesOfKept((kind) => state.get(kind) ?? []);
}
