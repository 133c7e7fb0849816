import { sha256Hex } from '../../json/sha256';
import { plainJson } from '../../json/plain-json';
import { isJsonTable, type Json } from '../../model/json';
import type { PlacementColumns, PlacementMore } from '../../model/placement';
import { PLACEMENT_NUMBERS } from './columns';

/** Columns as plain data. */
export interface PlainColumns {
  readonly ids: readonly string[];
  readonly pieces: readonly string[];
  readonly numbers: readonly number[];
  readonly more: readonly (readonly [number, PlacementMore])[];
}

export function plainColumns({ ids, pieces, numbers, more }: PlacementColumns): PlainColumns {
  return { ids, pieces, numbers: [...numbers], more: [...more] };
}

/** Columns from plain data; undefined where it is none. */
export function columnsOfPlain(plain: unknown): PlacementColumns | undefined {
  if (!isJsonTable(plain)) return undefined;
  const { ids, pieces, numbers, more } = plain as Partial<PlainColumns>;
  const isWhole =
    Array.isArray(ids) &&
    Array.isArray(pieces) &&
    Array.isArray(numbers) &&
    Array.isArray(more) &&
    pieces.length === ids.length &&
    numbers.length === ids.length * PLACEMENT_NUMBERS;
  if (!isWhole) return undefined;
  return { count: ids.length, ids, pieces, numbers: Float64Array.from(numbers), more: new Map(more) };
}

/** What stands for columns in a hash: their numbers by a hash of their bytes, least significant byte first. */
export function hashedColumns({ ids, pieces, numbers, more }: PlacementColumns): Json {
  const bytes = new Uint8Array(numbers.length * 8);
  const view = new DataView(bytes.buffer);
  numbers.forEach((value, i) => view.setFloat64(i * 8, value, true));
  return { ids, pieces, numbers: sha256Hex(bytes), more: plainJson([...more]) };
}
