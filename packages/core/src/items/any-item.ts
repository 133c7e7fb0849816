import type { ItemKind, ItemOfKind } from '../model/items';
import type { AnyItem } from './item-spec';

/** A pair of a kind and its item. */
export function anyItem<K extends ItemKind>(kind: K, item: ItemOfKind[K]): AnyItem<K> {
  // The one place that the compiler cannot follow.
  return { kind, item } as unknown as AnyItem<K>;
}
