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
}
