import { MEGABYTE, textOf, type FormatSpec } from '../format-spec';

/** How JSON, markup and documents begin. */
const BRACKETED = /^(?:\{\s*"|\[\s*[[{"]|<(?:\?xml|!doctype|html|svg)|%pdf)/i;

export const CSV = {
  words: 'a CSV table',
  extensions: ['.csv', '.tsv', '.txt'],
  mediaTypes: ['text/csv'],
  text: 'any' as const,
  // A table of one column is any text; what is told as something else by its brackets is none.
  isOf: (head) => {
    const text = textOf(head)?.trim();
    return text !== undefined && text !== '' && !BRACKETED.test(text);
  },
  maxBytes: 256 * MEGABYTE,
  task: 'read-csv' as const,
} satisfies FormatSpec;
