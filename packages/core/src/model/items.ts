import type { Json } from './json';
import type { Block } from './block';
import type { Divider } from './divider';
import type { Group } from './group';
import type { Link } from './link';
import type { Mask } from './mask';
import type { Marker } from './marker';
import type { Path } from './level-path';
import type { Pin } from './pin';
import type { Placement } from './placement';
import type { Recipe } from './recipe';
import type { TileFloor } from './tile-floor';
import type { Volume } from './volume';
import type { Wall } from './wall';
import type { PatchChange } from './patch';
import type { Vector3 } from './vector';

/** Every kind of item with its type. */
export interface ItemOfKind {
  readonly block: Block;
  readonly placement: Placement;
  readonly marker: Marker;
  readonly wall: Wall;
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
export type Item = ItemOfKind[ItemKind];

/** Everything in one stratum; items in order of id. */
export type StratumContent = { readonly [K in ItemKind]: readonly ItemOfKind[K][] };

/** What one level changes in a shared stratum for itself alone. It stands in the shared stratum, beside what it changes. */
export interface Patch {
  /** Told by `patchId`, so that a level has one patch for a thing. */
  readonly id: string;
  readonly level: string;
  readonly kind: ItemKind;
  /** The shared item; of an added one, its own id. */
  readonly target: string;
  readonly change: PatchChange;
  /** Changed: fields with the level's values. Added: the whole item. Hidden: nothing. */
  readonly fields: Readonly<Record<string, Json>>;
  /** The shared values of those fields when they were changed, so that a later change of the shared ones can be told. */
  readonly was: Readonly<Record<string, Json>>;
}

/** What one use of an assembly has otherwise, by the id of the thing within. */
export type UsePatch = Pick<Patch, 'kind' | 'change' | 'fields' | 'was'>;

/** One place where an assembly stands. The assembly itself is a stratum that belongs to a kit, in coordinates of its own. */
export interface AssemblyUse {
  readonly id: string;
  /** Id of the stratum that holds the assembly. */
  readonly assembly: string;
  readonly position: Vector3;
  /** Yaw in degrees; an assembly stands upright. */
  readonly turn: number;
  /** Absent: as the assembly is. */
  readonly patches?: Readonly<Record<string, UsePatch>> | null;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
