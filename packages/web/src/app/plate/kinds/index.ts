import type { ItemKind } from '@stravel/core';
import { ASSEMBLY_PLATE } from './assembly';
import { BLOCK_PLATE } from './block';
import { DIVIDER_PLATE } from './divider';
import { LINK_PLATE } from './link';
import { MARKER_PLATE } from './marker';
import { MASK_PLATE } from './mask';
import { PATH_PLATE } from './path';
import { PLACEMENT_PLATE } from './placement';
import { UNDRAWN, type PlateKind } from './plate-kind';
import { TILE_FLOOR_PLATE } from './tile-floor';
import { VOLUME_PLATE } from './volume';
import { WALL_PLATE } from './wall';

/** How every kind of item is drawn: a new one is a room and a line here. Marks of later ones lie over those of earlier ones. */
export const PLATE_KINDS: { readonly [K in ItemKind]: PlateKind<K> } = {
  block: BLOCK_PLATE,
  wall: WALL_PLATE,
  placement: PLACEMENT_PLATE,
  mask: MASK_PLATE,
  tileFloor: TILE_FLOOR_PLATE,
  marker: MARKER_PLATE,
  divider: DIVIDER_PLATE,
  volume: VOLUME_PLATE,
  path: PATH_PLATE,
  link: LINK_PLATE,
  assembly: ASSEMBLY_PLATE,
  recipe: UNDRAWN,
  pin: UNDRAWN,
  group: { ...UNDRAWN, hides: true },
  patch: UNDRAWN,
};

/** Whether things of a kind are to be seen. */
export function isDrawn(kind: ItemKind): boolean {
  return PLATE_KINDS[kind].bounds !== UNDRAWN.bounds;
}

/** How a kind is drawn, for a kind that only the caller knows. */
export function plateKind<K extends ItemKind>(kind: K): PlateKind<K> {
  return PLATE_KINDS[kind];
}
