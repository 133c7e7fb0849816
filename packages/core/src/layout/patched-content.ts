import { plainRecordIfAny } from '../json/plain-json';
import type { JsonRecord } from '../document/apply-operation';
import type { Item, ItemKind, ItemOfKind, Patch, StratumContent } from '../model/items';
import { ITEMS, contentOfKinds, listOf } from '../items';

/**
 * An item as a level sees it.
 * @param shared the item as all levels share it, undefined when there is none
 * @param patch the level's patch of it, undefined when it has none
 * @returns undefined when the level does not have the item; the shared one itself when nothing is changed
 */
export function patchedItem<T extends Item>(
  kind: ItemKind,
  shared: T | undefined,
  patch: Patch | undefined,
): T | undefined {
  if (!patch) return shared;
  // What a patch holds was checked for its kind when it was made.
  if (patch.change === 'added') return patch.fields as unknown as T;
  if (patch.change === 'hidden' || !shared) return undefined;
  const record: Record<string, unknown> = { ...shared, ...patch.fields };
  for (const field of Object.keys(ITEMS[kind].optional)) if (record[field] === null) delete record[field];
  return record as unknown as T;
}

/** The content of a shared stratum as one level sees it: its patches laid over, and no patches left. Items in order of id. */
export function patchedContent(content: StratumContent, level: string): StratumContent {
  const own = content.patch.filter((patch) => patch.level === level);
  if (own.length === 0) return { ...content, patch: [] };
  const byKind = new Map<ItemKind, Map<string, Patch>>();
  for (const patch of own) {
    const table = byKind.get(patch.kind) ?? new Map<string, Patch>();
    byKind.set(patch.kind, table.set(patch.target, patch));
  }
  const patchedList = <K extends ItemKind>(kind: K): readonly ItemOfKind[K][] => {
    const patches = byKind.get(kind);
    const list = listOf(content, kind);
    if (!patches) return list;
    const items = list.flatMap((item) => patchedItem<ItemOfKind[K]>(kind, item, patches.get(item.id)) ?? []);
    const shared = new Set(list.map(({ id }) => id));
    for (const patch of patches.values()) {
      const added = shared.has(patch.target) ? undefined : patchedItem<ItemOfKind[K]>(kind, undefined, patch);
      if (added) items.push(added);
    }
    return items.sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
  };
  return { ...contentOfKinds(patchedList), patch: [] };
}

/** How a patch stands to what is shared now. */
export interface PatchState {
  readonly patch: Patch;
  /** Moved is a change of the place alone. */
  readonly command: 'moved' | 'changed' | 'hidden' | 'added';
  /** The shared thing, as a plain record; undefined when there is none (any more). */
  readonly shared: JsonRecord | undefined;
  /** Whether what it changes is gone: it does nothing, and can be taken away. */
  readonly isIdle: boolean;
  /** Fields whose shared value is no longer what it was when the patch was made. */
  readonly changedSince: readonly string[];
}

const PLACE_FIELDS: ReadonlySet<string> = new Set(['position', 'turn', 'from', 'to', 'bottom', 'top', 'knots']);

/** The patches of a level in a shared stratum, each held against what is shared, in order of id. */
export function patchStates(
  patches: Iterable<Patch>,
  level: string,
  shared: (kind: ItemKind, id: string) => Item | undefined,
): PatchState[] {
  return [...patches]
    .filter((patch) => patch.level === level)
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map((patch) => {
      const record = plainRecordIfAny(shared(patch.kind, patch.target));
      const fields = Object.keys(patch.fields);
      const command =
        patch.change === 'changed' && fields.every((field) => PLACE_FIELDS.has(field)) ? 'moved' : patch.change;
      const changedSince =
        patch.change === 'changed' && record
          ? fields.filter((field) => JSON.stringify(record[field] ?? null) !== JSON.stringify(patch.was[field] ?? null))
          : [];
      return { patch, command, shared: record, isIdle: patch.change !== 'added' && !record, changedSince };
    });
}
