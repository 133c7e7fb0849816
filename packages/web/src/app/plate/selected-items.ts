import type { PickItem } from './pick-item';

/** What is selected on the plate, by id. A map of items is one. */
export type SelectedItems = Pick<ReadonlyMap<string, PickItem>, 'size' | 'has' | 'keys' | 'values'>;

/**
 * Items by id of which each is looked up when all are first asked for: of very many, only what draws them waits for that.
 * @param find gives where an item stands; undefined when it stands nowhere
 */
export function selectedItems<Ref extends { readonly id: string }>(
  refs: readonly Ref[],
  find: (ref: Ref) => PickItem | undefined,
): SelectedItems {
  const byId = new Map(refs.map((ref) => [ref.id, ref]));
  let found: ReadonlyMap<string, PickItem> | undefined;
  const items = (): ReadonlyMap<string, PickItem> =>
    (found ??= new Map(
      refs.flatMap((ref) => {
        const item = find(ref);
        return item ? [[ref.id, item] as const] : [];
      }),
    ));
  return {
    size: byId.size,
    has: (id) => byId.has(id),
    keys: () => byId.keys(),
    values: () => items().values(),
  };
}
