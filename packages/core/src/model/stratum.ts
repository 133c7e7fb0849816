import type { AssemblyUse } from './assembly';
import type { Block } from './block';
import type { Divider } from './divider';
import type { Group } from './group';
import type { Link } from './link';
import type { Mask } from './mask';
import type { Marker } from './marker';
import type { Patch } from './patch';
import type { Path } from './level-path';
import type { Pin } from './pin';
import type { Placement } from './placement';
import type { Recipe } from './recipe';
import type { TileFloor } from './tile-floor';
import type { Volume } from './volume';

export const STRATUM_ROLES = ['base', 'structure', 'section', 'dressing', 'events', 'light'] as const;
export type StratumRole = (typeof STRATUM_ROLES)[number];

/** A slice of content: what is known of it without opening it. */
export interface Stratum {
  readonly id: string;
  readonly name: string;
  readonly role: StratumRole;
  /** Id of the level that owns it, null when it is shared. */
  readonly owner: string | null;
  /** Kit to which it belongs as an assembly; absent for what stands in the stacks of levels. */
  readonly kit?: string | null;
  /** Assemblies that stand in it or once did, in order of id: from them one knows, without opening it, what it reaches. */
  readonly assemblies?: readonly string[] | null;
}

export interface ItemOfKind {
  readonly block: Block;
  readonly placement: Placement;
  readonly marker: Marker;
  readonly divider: Divider;
  readonly recipe: Recipe;
  readonly pin: Pin;
  readonly volume: Volume;
  readonly link: Link;
  readonly path: Path;
  readonly tileFloor: TileFloor;
  readonly mask: Mask;
  readonly assembly: AssemblyUse;
  readonly group: Group;
  readonly patch: Patch;
}
export type ItemKind = keyof ItemOfKind;
/** The kinds of item that a stratum holds. */
export const ITEM_KINDS = [
  'block',
  'placement',
  'marker',
  'divider',
  'recipe',
  'pin',
  'volume',
  'link',
  'path',
  'tileFloor',
  'mask',
  'assembly',
  'group',
  'patch',
] as const satisfies readonly ItemKind[];
export type Item = ItemOfKind[ItemKind];

/** Everything in one stratum; items in order of id. */
export interface StratumContent {
  readonly block: readonly Block[];
  readonly placement: readonly Placement[];
  readonly marker: readonly Marker[];
  readonly divider: readonly Divider[];
  readonly recipe: readonly Recipe[];
  readonly pin: readonly Pin[];
  readonly volume: readonly Volume[];
  readonly link: readonly Link[];
  readonly path: readonly Path[];
  readonly tileFloor: readonly TileFloor[];
  readonly mask: readonly Mask[];
  readonly assembly: readonly AssemblyUse[];
  readonly group: readonly Group[];
  readonly patch: readonly Patch[];
}

export const EMPTY_CONTENT: StratumContent = {
  block: [],
  placement: [],
  marker: [],
  divider: [],
  recipe: [],
  pin: [],
  volume: [],
  link: [],
  path: [],
  tileFloor: [],
  mask: [],
  assembly: [],
  group: [],
  patch: [],
};

/** Fields that an item may lack; an edit that takes one away leaves no trace of it. */
export const OPTIONAL_ITEM_FIELDS: Readonly<Record<ItemKind, readonly string[]>> = {
  block: ['group', 'faces'],
  placement: ['group', 'values'],
  marker: ['group', 'entry', 'values'],
  divider: ['group'],
  recipe: [],
  pin: [],
  volume: ['group', 'values'],
  link: [],
  path: ['group'],
  tileFloor: ['group'],
  mask: ['group'],
  assembly: ['group', 'patches'],
  group: [],
  patch: [],
};
