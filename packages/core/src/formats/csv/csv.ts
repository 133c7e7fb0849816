import Papa from 'papaparse';
import { CoreError } from '../../errors';
import { encodingOf } from '../format-spec';

/** Most rows that are read from one file, its header among them. */
export const MAX_CSV_ROWS = 100001;

/** A spreadsheet runs what begins like this as a formula. */
const FORMULA_START = /^[=+\-@\t\r]/;

/**
 * Rows as a CSV file (RFC 4180, comma, CRLF). What a spreadsheet would run as a formula gets an apostrophe in front;
 * `readCsv` takes it away again. Plain numbers stay as they are.
 */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  const safe = rows.map((row) =>
    row.map((cell) => (FORMULA_START.test(cell) && !Number.isFinite(Number(cell)) ? `'${cell}` : cell)),
  );
  return `${Papa.unparse(safe, { newline: '\r\n' })}\r\n`;
}

/**
 * The rows of a file of comma-, semicolon- or tab-separated values; the delimiter is found out. Empty lines are left out.
 * @param bytes UTF-8, or UTF-16 with its mark
 * @throws CoreError 'CSV_ENCODING', 'CSV_QUOTES' naming the row, 'CSV_EMPTY', 'CSV_ROWS' naming the limit
 */
export function readCsv(bytes: Uint8Array): string[][] {
  const text = decode(bytes);
  if (text.trim() === '') throw new CoreError('CSV_EMPTY', 'csv: the file has no rows');
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: MAX_CSV_ROWS + 1 });
  const quotes = errors.find(({ type }) => type === 'Quotes');
  if (quotes)
    throw new CoreError('CSV_QUOTES', `csv: row ${(quotes.row ?? 0) + 1}: ${quotes.message}`, {
      row: (quotes.row ?? 0) + 1,
    });
  if (data.length > MAX_CSV_ROWS)
    throw new CoreError('CSV_ROWS', `csv: the file has more than ${MAX_CSV_ROWS - 1} rows; split it`, {
      most: MAX_CSV_ROWS - 1,
    });
  return data.map((row) =>
    row.map((cell) => (cell.startsWith("'") && FORMULA_START.test(cell.slice(1)) ? cell.slice(1) : cell)),
  );
}

/** Rows of what a spreadsheet puts on the clipboard. */
export function readClipboardRows(text: string): string[][] {
  return Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;
}

/** Rows as a spreadsheet takes them from the clipboard. */
export function writeClipboardRows(rows: readonly (readonly string[])[]): string {
  return Papa.unparse(
    rows.map((row) => [...row]),
    { delimiter: '\t', newline: '\n' },
  );
}

/** Text decoders are not of the language: the runtime's, as far as it is used here. */
declare const TextDecoder: new (
  label: string,
  options: { readonly fatal: boolean },
) => { decode(bytes: Uint8Array): string };

function decode(bytes: Uint8Array): string {
  try {
    return new TextDecoder(encodingOf(bytes), { fatal: true }).decode(bytes);
  } catch {
    throw new CoreError('CSV_ENCODING', `csv: byte ${firstBad(bytes) + 1} is not UTF-8; save the file as "CSV UTF-8"`, {
      byte: firstBad(bytes),
    });
  }
}

/** Index of the first byte that no UTF-8 text has there. */
function firstBad(bytes: Uint8Array): number {
  for (let at = 0; at < bytes.length;) {
    const lead = bytes[at];
    const length =
      lead < 0x80
        ? 1
        : lead >= 0xc2 && lead < 0xe0
          ? 2
          : lead >= 0xe0 && lead < 0xf0
            ? 3
            : lead >= 0xf0 && lead < 0xf5
              ? 4
              : 0;
    if (length === 0) return at;
    for (let i = 1; i < length; i++) if ((bytes[at + i] ?? 0) >> 6 !== 2) return at;
    at += length;
  }
  return 0;
}
