import type { ItemKind } from '@stravel/core';
import { ASSEMBLY_DESK } from './assembly/desk';
import { BLOCK_DESK } from './block/desk';
import { DIVIDER_DESK } from './divider/desk';
import type { ItemDesk } from './item-desk';
import { MARKER_DESK } from './marker/desk';
import { MASK_DESK } from './mask/desk';
import { PATH_DESK } from './path/desk';
import { PLACEMENT_DESK } from './placement/desk';
import { TILE_FLOOR_DESK } from './tile-floor/desk';
import { VOLUME_DESK } from './volume/desk';
import { WALL_DESK } from './wall/desk';

/** What the Layout desk has for every kind: a new one is a room and a line here. Tools stand in the tool line in this order. */
export const ITEM_DESKS: { readonly [K in ItemKind]: ItemDesk<K> } = {
  block: BLOCK_DESK,
  wall: WALL_DESK,
  placement: PLACEMENT_DESK,
  marker: MARKER_DESK,
  divider: DIVIDER_DESK,
  volume: VOLUME_DESK,
  path: PATH_DESK,
  tileFloor: TILE_FLOOR_DESK,
  mask: MASK_DESK,
  assembly: ASSEMBLY_DESK,
  link: {},
  recipe: {},
  pin: {},
  group: {},
  patch: {},
};

/** What the desk has for a kind that only the caller knows. */
export function itemDesk<K extends ItemKind>(kind: K): ItemDesk<K> {
  return ITEM_DESKS[kind];
}
