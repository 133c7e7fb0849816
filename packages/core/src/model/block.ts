import type { TurnDegrees, Vector3 } from './vector';

/** Outward normal (need not be of length 1) and offset: inside is nx·x + ny·y + nz·z ≤ offset. Metres. */
export type BlockPlane = readonly [nx: number, ny: number, nz: number, offset: number];

export const BLOCK_SIGHTS = ['hides', 'decor'] as const;
export type BlockSight = (typeof BLOCK_SIGHTS)[number];

/** A convex solid given by its planes, which stand in the block's own frame; `position` and `turn` place that frame. */
export interface Block {
  readonly id: string;
  readonly name: string;
  readonly position: Vector3;
  readonly turn: TurnDegrees;
  readonly planes: readonly BlockPlane[];
  readonly sight: BlockSight;
  readonly material: string;
}
