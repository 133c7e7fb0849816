import type { PlanPoint } from './vector';

/** How a level is cut into cells, and when they are loaded. Its id is the level's. */
export interface CellGrid {
  readonly id: string;
  readonly sizeMetres: number;
  /** A corner of the grid on the plan, metres. */
  readonly origin: PlanPoint;
  /** A cell is asked for when one is nearer to it than this. */
  readonly loadMetres: number;
  /** A loaded cell is dropped when one is farther from it than this; not below `loadMetres`. */
  readonly dropMetres: number;
  /** A cell must be there when one is nearer to it than this; 0 asks for it on entering. */
  readonly readyMetres: number;
  /** Ids of strata that are always loaded. */
  readonly resident: readonly string[];
  /** Cells that are loaded while one is inside a volume, wherever they lie; absent or null for none. */
  readonly volumeRules?: readonly VolumeRule[] | null;
}

/** Most cells that one volume loads. */
export const MAX_CELLS_OF_VOLUME = 4096;

/** Loads cells while one is inside a volume of the level, and keeps them until one has left it. */
export interface VolumeRule {
  /** Id of the volume; no two rules are of one. */
  readonly volume: string;
  /** Keys of cells: column and row with a comma between. */
  readonly cells: readonly string[];
}
