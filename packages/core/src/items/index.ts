import { filledTable } from '../model/by-key';
import type { Item, ItemKind, ItemOfKind, StratumContent } from '../model/items';
import { anyItem } from './any-item';
import { ASSEMBLY } from './assembly/spec';
import { BLOCK } from './block/spec';
import { DIVIDER } from './divider/spec';
import { GROUP } from './group/spec';
import type { EachId } from './ids';
import type { AnyItem, ItemSpec, ItemSpecs, ItemTraits } from './item-spec';
import { LINK } from './link/spec';
import { MARKER } from './marker/spec';
import { MASK } from './mask/spec';
import { PATCH } from './patch/spec';
import { PATH } from './level-path/spec';
import { PIN } from './pin/spec';
import { PLACEMENT } from './placement/spec';
import { RECIPE } from './recipe/spec';
import { TILE_FLOOR } from './tile-floor/spec';
import { VOLUME } from './volume/spec';
import { WALL } from './wall/spec';

/** Every kind of item: a new one is a room and a line here. The order reaches the published schemas. */
export const ITEMS: ItemSpecs = {
  block: BLOCK,
  placement: PLACEMENT,
  marker: MARKER,
  wall: WALL,
  divider: DIVIDER,
  recipe: RECIPE,
  pin: PIN,
  volume: VOLUME,
  link: LINK,
  path: PATH,
  tileFloor: TILE_FLOOR,
  mask: MASK,
  assembly: ASSEMBLY,
  group: GROUP,
  patch: PATCH,
};

/** The kinds of item that a stratum holds. */
export const ITEM_KINDS = Object.keys(ITEMS) as readonly ItemKind[];

/** Whether a word names a kind of item. */
export function isItemKind(word: string): word is ItemKind {
  return Object.hasOwn(ITEMS, word);
}

/** Whether items of a kind may lack a field. */
export function isOptionalField(kind: ItemKind, field: string): boolean {
  return Object.hasOwn(ITEMS[kind].optional, field);
}

/** Whether what a word names is laid over other items. */
export function isLaidOver(kind: string): boolean {
  return isItemKind(kind) && ITEMS[kind].isLaidOver === true;
}

/** Kinds for which something holds, in their order. */
export function kindsOf(holds: (spec: ItemSpec<ItemKind>) => boolean): readonly ItemKind[] {
  return ITEM_KINDS.filter((kind) => holds(ITEMS[kind] as ItemSpec<ItemKind>));
}

/** Kinds with a trait, in their order. */
export function kindsWith(trait: keyof ItemTraits): readonly ItemKind[] {
  return kindsOf(({ traits }) => traits[trait]);
}

type Lists<K extends ItemKind = ItemKind> = { [P in K]: readonly ItemOfKind[P][] };

function fill<K extends ItemKind>(
  lists: Partial<Lists<K>>,
  kind: K,
  of: <P extends ItemKind>(kind: P) => readonly ItemOfKind[P][],
): void {
  lists[kind] = of(kind);
}

/** A list for each of some kinds. */
export function contentOfSome(
  kinds: Iterable<ItemKind>,
  of: <K extends ItemKind>(kind: K) => readonly ItemOfKind[K][],
): Partial<StratumContent> {
  const content: Partial<Lists> = {};
  for (const kind of kinds) fill(content, kind, of);
  return content;
}

/** A list for each kind. */
export function contentOfKinds(of: <K extends ItemKind>(kind: K) => readonly ItemOfKind[K][]): StratumContent {
  return filledTable<Lists>(ITEM_KINDS, (lists, kind) => fill(lists, kind, of));
}

/** Content with nothing in it. */
export const EMPTY_CONTENT: StratumContent = contentOfKinds(() => []);

/** What is known of a kind, for a kind that only the caller knows. */
export function specOf<K extends ItemKind>(kind: K): ItemSpec<K> {
  return ITEMS[kind] as ItemSpec<K>;
}

/** The items of a kind, for a kind that only the caller knows. */
export function listOf<K extends ItemKind>(content: StratumContent, kind: K): readonly ItemOfKind[K][] {
  return content[kind];
}

/** Goes over all ids that some fields of an item point at; the kind is not known before. */
export function overIdsOf<T extends object>(kind: ItemKind, fields: T, each: EachId): T {
  const walk = ITEMS[kind].ids as unknown as (fields: T, each: EachId, all: ItemSpecs) => T;
  return walk(fields, each, ITEMS);
}

/** All items of some content with their kinds. */
export function* itemsOf(content: StratumContent): Generator<AnyItem> {
  for (const kind of ITEM_KINDS) {
    const items: readonly Item[] = content[kind];
    for (const item of items) yield anyItem(kind, item);
  }
}

/** Group of its stratum that an item is in, null at the top. */
export function groupOf<K extends ItemKind>({ kind, item }: AnyItem<K>): string | null {
  return ITEMS[kind].group(item);
}
