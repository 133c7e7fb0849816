import {
  decodeChunk,
  type ItemKind,
  type ItemOfKind,
  storedRecord,
  ITEM_KINDS,
  filledTable,
  specOf,
  type PlacementColumns,
  type StratumContent,
} from '@stravel/core';
import type { ItemTable } from './item-table';
import { PlacementStore } from './placement-columns';

/** Items as records. */
export class RecordTable<K extends ItemKind> extends Map<string, ItemOfKind[K]> implements ItemTable<K> {
  constructor(private readonly kind: K) {
    super();
  }

  put(item: ItemOfKind[K]): void {
    this.set(item.id, item);
  }

  *groups(): IterableIterator<readonly [id: string, group: string | null]> {
    const { group } = specOf(this.kind);
    for (const item of this.values()) yield [item.id, group(item)];
  }

  addChunk(bytes: Uint8Array): void {
    for (const record of decodeChunk(this.kind, bytes)) this.put(storedRecord(this.kind, record));
  }
}

/** Kinds that are kept in columns. */
interface ColumnTables {
  readonly placement: PlacementStore;
}

type RecordTables<K extends ItemKind = ItemKind> = { [P in K]: RecordTable<P> };

function fill<K extends ItemKind>(tables: Partial<RecordTables<K>>, kind: K): void {
  tables[kind] = new RecordTable(kind);
}

/** A table a kind. */
export type ItemTables = Omit<RecordTables, keyof ColumnTables> & ColumnTables;

/** Empty tables for all kinds. */
export function itemTables(): ItemTables {
  const records = filledTable<RecordTables>(ITEM_KINDS, fill);
  return { ...records, placement: new PlacementStore() };
}

/** Tables as they are sent to a worker: records, and of the kinds that are kept in columns those. */
export interface WholeTables {
  readonly columns: { readonly placement: PlacementColumns };
  readonly records: StratumContent;
}
