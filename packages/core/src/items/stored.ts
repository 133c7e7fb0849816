import type { ItemKind, ItemOfKind, StratumContent } from '../model/items';
import type { Json } from '../model/json';
import { shape, type Shape } from '../fields/field';
import { STORED_ASSEMBLY } from './assembly/stored';
import { STORED_BLOCK } from './block/stored';
import { STORED_DIVIDER } from './divider/stored';
import { STORED_GROUP } from './group/stored';
import { STORED_LINK } from './link/stored';
import { STORED_MARKER } from './marker/stored';
import { STORED_MASK } from './mask/stored';
import { STORED_PATCH } from './patch/stored';
import { STORED_PATH } from './level-path/stored';
import { STORED_PIN } from './pin/stored';
import { STORED_PLACEMENT } from './placement/stored';
import { STORED_RECIPE } from './recipe/stored';
import { STORED_TILE_FLOOR } from './tile-floor/stored';
import { STORED_VOLUME } from './volume/stored';
import { STORED_WALL } from './wall/stored';
import { ITEM_KINDS, isOptionalField, kindsWith, listOf, specOf } from './index';
import { packedGroup, type PackedForm } from './packed-form';
import type { ItemShapes, StoredSpec } from './stored-spec';

/** How every kind of item is validated: a new one is a room and a line here. */
const STORED: { readonly [K in ItemKind]: StoredSpec<K> } = {
  block: STORED_BLOCK,
  placement: STORED_PLACEMENT,
  marker: STORED_MARKER,
  volume: STORED_VOLUME,
  link: STORED_LINK,
  path: STORED_PATH,
  tileFloor: STORED_TILE_FLOOR,
  mask: STORED_MASK,
  assembly: STORED_ASSEMBLY,
  group: STORED_GROUP,
  patch: STORED_PATCH,
  recipe: STORED_RECIPE,
  pin: STORED_PIN,
  divider: STORED_DIVIDER,
  wall: STORED_WALL,
};

const ALL: ItemShapes = {
  of: (kind) => ITEM_SHAPES[kind],
  local: kindsWith('local'),
  isOptional: isOptionalField,
};

function shapeOf<K extends ItemKind>(kind: K): Shape<ItemOfKind[K]> {
  const stored: StoredSpec<K> = STORED[kind];
  if ('shape' in stored) return stored.shape();
  const { fields, rules } = stored;
  return shape<ItemOfKind[K]>(fields(ALL), ...(rules?.(ALL) ?? []));
}

/** Validation of what stands in strata. */
export const ITEM_SHAPES = Object.fromEntries(ITEM_KINDS.map((kind) => [kind, shapeOf(kind)])) as unknown as {
  // Each kind has the shape that was made for it.
  readonly [K in ItemKind]: Shape<ItemOfKind[K]>;
};

/** Kinds of which the file of a packed level has every item, under its id. */
export function packedKinds(): readonly ItemKind[] {
  return ITEM_KINDS.filter((kind) => STORED[kind].packed !== null);
}

/** How items of a kind are packed where their level's file has them in a list of their form, undefined for others. */
export function packedFormOf<K extends ItemKind>(kind: K): PackedForm<ItemOfKind[K]> | undefined {
  const { packed }: StoredSpec<K> = STORED[kind];
  return packed === null || packed === 'own form' ? undefined : packed;
}

/** The lists of a packed level's file that hold items of one kind as they are; those with nothing in them are left out. */
export function packedLists(contents: readonly StratumContent[]): Record<string, Json[]> {
  const lists: Record<string, Json[]> = {};
  const add = <K extends ItemKind>(kind: K): void => {
    const packed = packedFormOf(kind);
    if (!packed) return;
    const items = contents.flatMap((content) => listOf(content, kind));
    if (items.length > 0)
      lists[packed.list] = (packed.compare ? [...items].sort(packed.compare) : items).map((item) => ({
        ...packed.of(item),
        ...packedGroup(specOf(kind).group(item)),
      }));
  };
  ITEM_KINDS.forEach(add);
  return lists;
}
