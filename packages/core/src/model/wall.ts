import type { BlockSight } from './block';
import type { PlanPoint } from './vector';

/** A point of a wall's line. */
export interface WallCorner {
  /** Unique within the wall, kept as long as the corner is. */
  readonly id: string;
  readonly position: PlanPoint;
}

/** A door or a window: a rectangle left out of one segment of a wall. */
export interface WallOpening {
  /** Unique within the wall. */
  readonly id: string;
  /** Corner at which its segment begins, so that other corners can move without it. */
  readonly corner: string;
  /** From that corner to its middle, along the line. */
  readonly offsetMetres: number;
  readonly widthMetres: number;
  /** Its bottom above the foot of the wall; 0 for a door. */
  readonly sillMetres: number;
  /** Its top above the foot of the wall. */
  readonly headMetres: number;
}

/** A wall along a line of the plan. Its blocks are derived from it: one a segment, more where there are openings. */
export interface Wall {
  readonly id: string;
  readonly name: string;
  readonly corners: readonly WallCorner[];
  /** Whether a segment leads from the last corner to the first. */
  readonly closed: boolean;
  /** Height on which it stands, metres. */
  readonly baseMetres: number;
  readonly heightMetres: number;
  /** Half of it lies on either side of the line. */
  readonly thicknessMetres: number;
  readonly openings: readonly WallOpening[];
  /** Thickness of the floor below what a closed one encloses; 0 for none. */
  readonly floorMetres: number;
  /** Thickness of the ceiling over it; 0 for none. */
  readonly ceilingMetres: number;
  readonly sight: BlockSight;
  readonly material: string;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
