import { FORMATS, FORMAT_IDS, type FormatId } from '.';
import { HEAD_BYTES, begins, textOf, type FormatSpec } from './format-spec';
import { zippedDocument } from './zip/spec';

/** A file that somebody chose, as far as it is known by. */
export interface ChosenFile {
  readonly name: string;
  /** Its whole length, bytes. */
  readonly bytes: number;
  /** Its first `HEAD_BYTES`. */
  readonly head: Uint8Array;
}

/** A file whose bytes are at hand. */
export function chosenFile(name: string, bytes: Uint8Array): ChosenFile {
  return { name, bytes: bytes.length, head: bytes.subarray(0, HEAD_BYTES) };
}

/** Files that are not read, and can be told all the same. */
const OTHERS: readonly (readonly [string, (head: Uint8Array) => boolean])[] = [
  ['a PDF document', (head) => begins(head, [0x25, 0x50, 0x44, 0x46])],
  ['a GIF picture', (head) => begins(head, [0x47, 0x49, 0x46, 0x38])],
  ['a BMP picture', (head) => begins(head, [0x42, 0x4d])],
  ['a TIFF picture', (head) => begins(head, [0x49, 0x49, 0x2a, 0x00]) || begins(head, [0x4d, 0x4d, 0x00, 0x2a])],
  ['a gzip file', (head) => begins(head, [0x1f, 0x8b])],
  ['an SQLite database', (head) => textOf(head.subarray(0, 15)) === 'SQLite format 3'],
  ['a JSON file', (head) => /^\s*[{[]/.test(textOf(head) ?? '')],
  ['an SVG drawing', (head) => /^\s*<(?:[^]*<)?svg/i.test(textOf(head) ?? '')],
  ['an HTML page', (head) => /^\s*<(?:!doctype html|html)/i.test(textOf(head) ?? '')],
  ['an XML file', (head) => /^\s*</.test(textOf(head) ?? '')],
  ['text', (head) => textOf(head) !== undefined],
];

/** An ending that says nothing of what stands in a file. */
const VAGUE = '.txt';

/** What a file is, by how it begins; where it may be several things, its name decides, then what is wanted. */
export function formatOfFile({ name, head }: ChosenFile, wanted: readonly FormatId[] = []): FormatId | undefined {
  const found = FORMAT_IDS.filter((id) => specOf(id).isOf(head));
  const named = namedFormat(name);
  if (named && found.includes(named)) return named;
  const asWanted = found.find((id) => wanted.includes(id));
  if (asWanted) return asWanted;
  const surely = found.find((id) => specOf(id).text !== 'any');
  if (surely) return surely;
  // Any text might be a table; where its name says that it is another text, it is taken at its word.
  return found.length > 0 && named && specOf(named).text ? named : found.at(0);
}

function namedFormat(name: string): FormatId | undefined {
  const lower = name.toLowerCase();
  return FORMAT_IDS.find((id) => specOf(id).extensions.some((ending) => ending !== VAGUE && lower.endsWith(ending)));
}

function specOf(id: FormatId): FormatSpec {
  return FORMATS[id];
}

/** Why a file is not one of those that are wanted and what to do, in sentences; undefined when it is. */
export function fileFault(file: ChosenFile, wanted: readonly FormatId[]): string | undefined {
  const fault = faultOfKind(file, wanted);
  return fault && `${file.name} ${fault}`;
}

/** The same without its name, for where that stands beside it. */
export function faultOfKind(file: ChosenFile, wanted: readonly FormatId[]): string | undefined {
  const format = formatOfFile(file, wanted);
  if (file.bytes === 0 || format === undefined || !wanted.includes(format))
    return `is ${wordsOfFile(file, wanted)}. ${chooseText(wanted)}`;
  const { maxBytes, words } = FORMATS[format];
  return file.bytes > maxBytes
    ? `has ${megabytes(file.bytes)} MB; ${words} may have ${megabytes(maxBytes)} MB at most.`
    : undefined;
}

/** What a file is, in words that follow *is*. */
export function wordsOfFile(file: ChosenFile, wanted: readonly FormatId[]): string {
  if (file.bytes === 0) return 'empty';
  const format = formatOfFile(file, wanted);
  const isTold = format !== undefined && (specOf(format).text !== 'any' || namedFormat(file.name) === format);
  if (isTold) return FORMATS[format].words;
  return (
    zippedDocument(file.head) ??
    OTHERS.find(([, isOf]) => isOf(file.head))?.[0] ??
    'of a kind that Stravel does not read'
  );
}

/** Says what may be chosen. */
export function chooseText(wanted: readonly FormatId[]): string {
  return `Choose ${listed(wanted.map((id) => FORMATS[id].words))} (${endingsOf(wanted).join(', ')}).`;
}

/** What a chooser of files is told to offer. */
export function acceptOf(wanted: readonly FormatId[]): string {
  return [...endingsOf(wanted), ...wanted.flatMap((id) => FORMATS[id].mediaTypes)].join(',');
}

function endingsOf(wanted: readonly FormatId[]): readonly string[] {
  return wanted.flatMap((id) => FORMATS[id].extensions);
}

function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join() : `${words.slice(0, -1).join(', ')} or ${words[words.length - 1]}`;
}

function megabytes(bytes: number): string {
  return (bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0);
}
