import { looseEndNotes, restoreCollection, type CollectionContent, type LooseEndNotes } from '@stravel/core';

/** What an archive holds, and what in it points at nothing. */
export interface ArchiveContent {
  readonly content: CollectionContent;
  readonly loose: LooseEndNotes;
}

/** Reads an archive, with a note of each thing that points at nothing. @throws CoreError as `restoreCollection` does */
export function readArchive(bytes: Uint8Array): ArchiveContent {
  const content = restoreCollection(bytes);
  return { content, loose: looseEndNotes(content) };
}
