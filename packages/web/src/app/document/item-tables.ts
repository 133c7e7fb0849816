import { decodeChunk, type ItemKind, type ItemOfKind } from '@stravel/core';
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

  addChunk(bytes: Uint8Array): void {
    // Records were checked for their kind by the server.
    for (const record of decodeChunk(this.kind, bytes)) this.put(record as unknown as ItemOfKind[K]);
  }
}

/** Kinds that are kept in columns. */
interface ColumnTables {
  readonly placement: PlacementStore;
}
const COLUMN_TABLES: { readonly [K in keyof ColumnTables]: () => ColumnTables[K] } = {
  placement: () => new PlacementStore(),
};

/** A table a kind. */
export type ItemTables = {
  readonly [K in ItemKind]: K extends keyof ColumnTables ? ColumnTables[K] : RecordTable<K>;
};

/** Empty tables for all of some kinds. */
export function itemTables(kinds: readonly ItemKind[]): ItemTables {
  const columns: Partial<Record<ItemKind, () => ItemTable<never>>> = COLUMN_TABLES as never;
  // Each kind has the table that is declared for it.
  return Object.fromEntries(
    kinds.map((kind) => [kind, columns[kind]?.() ?? new RecordTable(kind)]),
  ) as unknown as ItemTables;
}
