import type { ItemKind, ItemOfKind } from '@stravel/core';

/** The items of one kind in a document. */
export interface ItemTable<K extends ItemKind> {
  readonly size: number;
  has(id: string): boolean;
  get(id: string): ItemOfKind[K] | undefined;
  values(): IterableIterator<ItemOfKind[K]>;
  keys(): IterableIterator<string>;
  /** Ids of all items, each with the group that it stands in, if any. */
  groups(): IterableIterator<readonly [id: string, group: string | null | undefined]>;
  put(item: ItemOfKind[K]): void;
  delete(id: string): void;
  clear(): void;
  /** Takes in a chunk of a snapshot. */
  addChunk(bytes: Uint8Array): void;
}
