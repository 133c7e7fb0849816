import type { TurnDegrees, Vector3 } from './vector';

/** Outward normal (need not be of length 1) and offset: inside is nx·x + ny·y + nz·z ≤ offset. Metres. */
export type BlockPlane = readonly [nx: number, ny: number, nz: number, offset: number];

export const BLOCK_SIGHTS = ['hides', 'decor'] as const;
export type BlockSight = (typeof BLOCK_SIGHTS)[number];

/** How one face of a block is surfaced. */
export interface BlockFace {
  /** Which plane, from 0. */
  readonly plane: number;
  /** Name of the surface. */
  readonly surface: string;
  /** Metres that one repeat of the surface covers, along and up. */
  readonly tileMetres: readonly [number, number];
  /** Where the surface begins, in metres. */
  readonly offsetMetres: readonly [number, number];
}

/** A convex solid given by its planes, which stand in the block's own frame; `position` and `turn` place that frame. */
export interface Block {
  readonly id: string;
  readonly name: string;
  readonly position: Vector3;
  readonly turn: TurnDegrees;
  readonly planes: readonly BlockPlane[];
  readonly sight: BlockSight;
  /** Surface of all faces that have none of their own. */
  readonly material: string;
  /** Faces with a surface of their own; absent: none. */
  readonly faces?: readonly BlockFace[] | null;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
