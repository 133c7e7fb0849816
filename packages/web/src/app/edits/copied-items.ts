import {
  ITEMS,
  anyItem,
  isItemKind,
  itemsOf,
  overIdsOf,
  type AnyItem,
  type ItemKind,
  type Operation,
  type StratumContent,
} from '@stravel/core';
import { create, newId } from './operations';

/** Items under ids of their own, to be put into a stratum. What points at another item of the content points at its copy. What levels change for themselves is left out. */
export function copiedItems(
  stratum: string,
  content: StratumContent,
): { readonly copies: readonly AnyItem[]; readonly operations: Operation[] } {
  const items = [...itemsOf(content)].filter(({ kind }) => ITEMS[kind].traits.copied);
  const ids = new Map(items.map(({ item }) => [item.id, newId()] as const));
  const renamed = (id: string): string => ids.get(id) ?? id;
  const copies = items.map(({ kind, item }) => {
    const copy = { ...item, id: renamed(item.id) };
    const led = overIdsOf(kind, copy, (id, { to }) => (to === 'item' || isItemKind(to) ? renamed(id) : id));
    return anyItem<ItemKind>(kind, led);
  });
  return { copies, operations: copies.map(({ kind, item }) => create(stratum, kind, item)) };
}
