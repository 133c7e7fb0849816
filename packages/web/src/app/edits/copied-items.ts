import type { Item, ItemKind, Link, Operation, Pin, StratumContent } from '@stravel/core';
import { create, newId } from './operations';

/** Items under ids of their own, to be put into a stratum. What points at another item of the content points at its copy. Patches are left out. */
export function copiedItems(
  stratum: string,
  content: StratumContent,
): { readonly copies: readonly { readonly kind: ItemKind; readonly item: Item }[]; readonly operations: Operation[] } {
  const lists = (Object.entries(content) as [ItemKind, readonly Item[]][]).filter(([kind]) => kind !== 'patch');
  const ids = new Map(lists.flatMap(([, items]) => items.map(({ id }) => [id, newId()] as const)));
  const renamed = (id: string): string => ids.get(id) ?? id;
  const copies = lists.flatMap(([kind, items]) =>
    items.map((item) => {
      const copy = { ...item, id: renamed(item.id) } as Item;
      if (kind === 'pin') return { kind, item: { ...copy, recipe: renamed((copy as Pin).recipe) } as Item };
      if (kind === 'link')
        return {
          kind,
          item: { ...copy, emitter: renamed((copy as Link).emitter), target: renamed((copy as Link).target) } as Item,
        };
      if (kind === 'group' && 'parent' in copy && copy.parent !== null)
        return { kind, item: { ...copy, parent: renamed(copy.parent) } };
      return { kind, item: 'group' in copy && copy.group ? { ...copy, group: renamed(copy.group) } : copy };
    }),
  );
  return { copies, operations: copies.map(({ kind, item }) => create(stratum, kind, item)) };
}
