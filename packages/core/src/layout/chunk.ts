import { isJsonList, isJsonTable } from '../model/json';
import { plainRecord } from '../json/plain-json';
import { strFromU8, strToU8 } from 'fflate';
import type { JsonRecord } from '../document/apply-operation';
import { CoreError } from '../errors';
import { parseJson } from '../json/canonical-json';
import { storedRecord } from '../document/stored-record';
import { PLACEMENT_NUMBERS, moreOf, placementAt } from '../items/placement/columns';
import type { PlacementColumns, PlacementMore } from '../model/placement';
import type { EditableKind } from '../model/records';

/** Most records in one chunk. */
export const MAX_CHUNK_RECORDS = 4096;

const MAGIC = 0x31435653; // 'SVC1'
const PREFIX_BYTES = 12;

/**
 * One chunk of a document: records of one kind. Placements stand in columns, all other kinds as JSON.
 * Layout: magic, count, bytes of the text part, the text part (padded to 8), then for placements 9·count float64.
 * @param records at most 4096
 */
export function encodeChunk(kind: EditableKind, records: readonly JsonRecord[]): Uint8Array {
  const codec = COLUMN_CODECS[kind];
  return codec ? codec.encode(records) : assemble(records.length, JSON.stringify(records), new Float64Array(0));
}

/** Kinds that stand in columns. */
const COLUMN_CODECS: Readonly<Partial<Record<EditableKind, ColumnCodec>>> = {
  placement: { encode: encodePlacements, decode: decodePlacements },
};

interface ColumnCodec {
  readonly encode: (records: readonly JsonRecord[]) => Uint8Array;
  readonly decode: (bytes: Uint8Array) => JsonRecord[];
}

function encodePlacements(records: readonly JsonRecord[]): Uint8Array {
  const placements = records.map((record) => storedRecord('placement', record));
  const pieces = new Map<string, number>();
  const numbers = new Float64Array(placements.length * PLACEMENT_NUMBERS);
  const indices = placements.map(({ position, turn, scale, piece }, i) => {
    const at = i * PLACEMENT_NUMBERS;
    numbers.set(position, at);
    numbers.set(turn, at + 3);
    numbers.set(scale, at + 6);
    let index = pieces.get(piece);
    if (index === undefined) pieces.set(piece, (index = pieces.size));
    return index;
  });
  const more = placements.flatMap((placement, i) => {
    const own = moreOf(placement);
    return own ? [[i, own]] : [];
  });
  const text = JSON.stringify({
    ids: placements.map(({ id }) => id),
    pieces: [...pieces.keys()],
    indices,
    ...(more.length > 0 ? { more } : {}),
  });
  return assemble(records.length, text, numbers);
}

/** @throws CoreError 'CHUNK_UNREADABLE' when the bytes are not a chunk or are cut off */
export function decodePlacementChunk(bytes: Uint8Array): PlacementColumns {
  const { count, text, numbersAt } = open(bytes);
  const parts = parseJson(text, 'chunk') as unknown as {
    ids: string[];
    pieces: string[];
    indices: number[];
    more?: [number, PlacementMore][];
  };
  if (bytes.byteLength < numbersAt + count * PLACEMENT_NUMBERS * 8 || parts.ids.length !== count) {
    throw new CoreError('CHUNK_UNREADABLE', `chunk: ${count} placements need more than its ${bytes.byteLength} bytes`);
  }
  const copy = bytes.slice(numbersAt, numbersAt + count * PLACEMENT_NUMBERS * 8);
  return {
    count,
    ids: parts.ids,
    pieces: parts.indices.map((i) => parts.pieces[i]),
    numbers: new Float64Array(copy.buffer),
    more: new Map(parts.more),
  };
}

/** The records of a chunk. @throws CoreError 'CHUNK_UNREADABLE' */
export function decodeChunk(kind: EditableKind, bytes: Uint8Array): JsonRecord[] {
  const columns = COLUMN_CODECS[kind];
  if (columns) return columns.decode(bytes);
  const records = parseJson(open(bytes).text, 'chunk');
  if (!isJsonList(records) || !records.every(isJsonTable))
    throw new CoreError('CHUNK_UNREADABLE', `chunk: it holds no list of records of the kind ${kind}`);
  return [...records];
}

function decodePlacements(bytes: Uint8Array): JsonRecord[] {
  const columns = decodePlacementChunk(bytes);
  return columns.ids.map((_id, i) => plainRecord(placementAt(columns, i)));
}

function assemble(count: number, text: string, numbers: Float64Array): Uint8Array {
  const textBytes = strToU8(text);
  const numbersAt = padded(PREFIX_BYTES + textBytes.length);
  const bytes = new Uint8Array(numbersAt + numbers.byteLength);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, count, true);
  view.setUint32(8, textBytes.length, true);
  bytes.set(textBytes, PREFIX_BYTES);
  numbers.forEach((value, i) => view.setFloat64(numbersAt + i * 8, value, true));
  return bytes;
}

function open(bytes: Uint8Array): { count: number; text: string; numbersAt: number } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.byteLength < PREFIX_BYTES || view.getUint32(0, true) !== MAGIC) {
    throw new CoreError('CHUNK_UNREADABLE', `chunk: its ${bytes.byteLength} bytes do not start as a chunk does`);
  }
  const textLength = view.getUint32(8, true);
  if (PREFIX_BYTES + textLength > bytes.byteLength) {
    throw new CoreError('CHUNK_UNREADABLE', `chunk: claims ${textLength} bytes of text in ${bytes.byteLength} bytes`);
  }
  return {
    count: view.getUint32(4, true),
    text: strFromU8(bytes.subarray(PREFIX_BYTES, PREFIX_BYTES + textLength)),
    numbersAt: padded(PREFIX_BYTES + textLength),
  };
}

function padded(length: number): number {
  return (length + 7) & ~7;
}
