import type { BlockPlane } from '../model/block';
import type { Box3, PlanPoint, TurnDegrees, Vector3 } from '../model/vector';

/** A block that hides: what the partition reads of it. */
export interface HidingBlock {
  readonly id: string;
  readonly position: Vector3;
  readonly turn: TurnDegrees;
  readonly planes: readonly BlockPlane[];
}

/** A divider as the partition reads it. */
export interface SightDivider {
  readonly id: string;
  readonly from: PlanPoint;
  readonly to: PlanPoint;
  readonly bottom: number;
  readonly top: number;
}

/** A place from which play starts. */
export interface SightSpawn {
  readonly id: string;
  readonly position: Vector3;
}

/** All that the sight geometry depends on, in order of id. Placements are not among it. */
export interface SightInput {
  readonly blocks: readonly HidingBlock[];
  readonly dividers: readonly SightDivider[];
  readonly spawns: readonly SightSpawn[];
  /** Metres; null takes the hull of the blocks. Outside is beyond them. */
  readonly bounds: Box3 | null;
  /** Box around all content of a level without bounds in which no block hides; absent in all others. */
  readonly extent?: Box3;
  /** True closes the bounds: what lies at them is sky. */
  readonly openSky: boolean;
}

export interface SightOptions {
  /** Side of the fixed lattice that the tree starts with, metres, 8 to 1024. */
  readonly latticeMetres: number;
  /** Steps of the flow from one opening before it falls back to the rough bound, 1 to 10 million. */
  readonly stepLimit: number;
  /** Steps of the flow altogether; as they run out, openings fall back sooner. */
  readonly totalStepLimit: number;
  /** Most blocks that are taken in. */
  readonly blockLimit: number;
  /** Most pockets whose visible sets are followed; memory grows with their square. */
  readonly pocketLimit: number;
}

export const DEFAULT_SIGHT_OPTIONS: SightOptions = {
  latticeMetres: 64,
  stepLimit: 20000,
  totalStepLimit: 1500000,
  blockLimit: 20000,
  pocketLimit: 20000,
};

/** Raised whenever the same input would give another result. */
export const SIGHT_VERSION = 3;
