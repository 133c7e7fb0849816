import { MEGABYTE, begins, type FormatSpec } from '../format-spec';

/** How the first entry of a zip begins, and one that has none. */
const ENTRY = [0x50, 0x4b, 0x03, 0x04];
const EMPTY = [0x50, 0x4b, 0x05, 0x06];
/** Documents that are a zip as well, by the name of their first entry. */
const DOCUMENTS: Readonly<Record<string, string>> = {
  '[Content_Types].xml': 'an Office Open XML document',
  mimetype: 'an OpenDocument file',
};
/** Where the name of a zip's first entry begins. */
const NAME_AT = 30;

/** What a zip is that holds a document of a spreadsheet and the like; undefined for others. */
export function zippedDocument(head: Uint8Array): string | undefined {
  if (!begins(head, ENTRY)) return undefined;
  const name = new TextDecoder().decode(head.subarray(NAME_AT, NAME_AT + 32));
  return Object.entries(DOCUMENTS).find(([first]) => name.startsWith(first))?.[1];
}

/** The archive of a collection is a zip; what stands in it is for its reader to say. */
export const ARCHIVE: FormatSpec = {
  words: 'a zip archive',
  extensions: ['.zip'],
  mediaTypes: ['application/zip'],
  isOf: (head) => (begins(head, ENTRY) && zippedDocument(head) === undefined) || begins(head, EMPTY),
  maxBytes: 300 * MEGABYTE,
  task: 'restore',
};
