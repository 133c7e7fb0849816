import { MEGABYTE, begins, type FormatSpec } from '../format-spec';

/** The archive of a collection is a zip; what stands in it is for its reader to say. */
export const ARCHIVE: FormatSpec = {
  words: 'a zip archive',
  extensions: ['.zip'],
  mediaTypes: ['application/zip'],
  isOf: (head) => begins(head, [0x50, 0x4b, 0x03, 0x04]) || begins(head, [0x50, 0x4b, 0x05, 0x06]),
  maxBytes: 300 * MEGABYTE,
  task: 'restore',
};
