import {
  anyItem,
  isOptionalField,
  plainRecord,
  specOf,
  storedRecord,
  type AnyItem,
  type ChangedFields,
  type Item,
  type ItemKind,
  type ItemOfKind,
} from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import type { ItemRef } from '../store/layout-store';

/** An item with its place, as it stands. */
export type PlacedItem<K extends ItemKind = ItemKind> = AnyItem<K> & { readonly stratum: string };

export function placedItem<K extends ItemKind>(stratum: string, kind: K, item: ItemOfKind[K]): PlacedItem<K> {
  return { stratum, ...anyItem(kind, item) };
}

/** The item that a reference names, undefined when it is gone. */
export function placedIn(document: StratumDocument | undefined, { kind, id }: ItemRef): PlacedItem | undefined {
  const item = document?.item(kind, id);
  return document && item && placedItem<ItemKind>(document.id, kind, item);
}

/** Whether an item is of a kind. */
export function isOfKind<K extends ItemKind>(one: PlacedItem, kind: K): one is PlacedItem & PlacedItem<K> {
  return one.kind === kind;
}

/** Those of some items that are of a kind. */
export function ofKind<K extends ItemKind>(items: readonly PlacedItem[], kind: K): (PlacedItem & PlacedItem<K>)[] {
  return items.filter((one): one is PlacedItem & PlacedItem<K> => isOfKind(one, kind));
}

/** Names an item. */
export function refOf({ stratum, kind, item }: PlacedItem): ItemRef {
  return { stratum, kind, id: item.id };
}

/** An item with some fields otherwise. */
export function changedItem(kind: ItemKind, item: Item, fields: ChangedFields): Item {
  return storedRecord<ItemKind>(kind, { ...plainRecord<Item>(item), ...fields });
}

/** Whether items of a kind stand in groups of their stratum. */
export function isGrouped(kind: ItemKind): boolean {
  return isOptionalField(kind, 'group');
}

/** One thing of a kind in words: 'an assembly'. */
export function oneOf(kind: ItemKind): string {
  const { one } = specOf(kind).words;
  return `${/^[aeiou]/.test(one) ? 'an' : 'a'} ${one}`;
}
