/** What is told of a kind of file that comes in. One in each room; `FORMATS` lists them. */
export interface FormatSpec {
  /** In a sentence, with its article. */
  readonly words: string;
  /** With their dots, in small letters; the first is the usual one. */
  readonly extensions: readonly string[];
  readonly mediaTypes: readonly string[];
  /** Whether a file is one, by how it begins. */
  readonly isOf: (head: Uint8Array) => boolean;
  /** Text that its name may speak for; 'any' where every text may be one. */
  readonly text?: 'named' | 'any';
  /** Largest file that is taken in, bytes. */
  readonly maxBytes: number;
  /** What reads it; null where it is kept as it is, or comes with another file. */
  readonly task: 'read-pieces' | 'read-csv' | 'restore' | null;
}

/** Bytes at the beginning of a file by which it is known. */
export const HEAD_BYTES = 4096;
export const MEGABYTE = 1e6;

/** Whether bytes begin so. */
export function begins(head: Uint8Array, wanted: readonly number[], at = 0): boolean {
  return head.length >= at + wanted.length && wanted.every((byte, i) => head[at + i] === byte);
}

const MARKS: readonly (readonly [readonly number[], string])[] = [
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
];
/** Controls that no text has. */
const NO_TEXT = /[\u0000-\u0008\u000e-\u001f]/;

/** How a text is written: UTF-8, or UTF-16 where its mark says so. */
export function encodingOf(bytes: Uint8Array): string {
  return MARKS.find(([mark]) => begins(bytes, mark))?.[1] ?? 'utf-8';
}

/** A text without its mark, UTF-8 or UTF-16 with one. */
export function decodedText(bytes: Uint8Array): string {
  return new TextDecoder(encodingOf(bytes)).decode(bytes);
}

/** The beginning of a text, UTF-8 or UTF-16 with its mark; undefined for what is no text. */
export function textOf(head: Uint8Array): string | undefined {
  const text = decodedText(head);
  return NO_TEXT.test(text) ? undefined : text;
}

/** The first line of a text that says something, without those that are empty or a remark; '' where none does, undefined for what is no text. */
export function firstLine(head: Uint8Array): string | undefined {
  const text = textOf(head);
  if (text === undefined) return undefined;
  return (
    text
      .split(/\r?\n/)
      .map((line) => line.trim())
      .find((line) => line !== '' && !line.startsWith('#')) ?? ''
  );
}
