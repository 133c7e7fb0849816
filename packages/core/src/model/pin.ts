import type { Vector3 } from './vector';

/**
 * A hand edit inside a section that survives regeneration: the squares of one wall block are held free of walls, and the
 * block is hidden, or stands where it was moved to.
 */
export interface Pin {
  readonly id: string;
  readonly recipe: string;
  /** Least column and row, from 0, and size of the wall block, in squares. */
  readonly column: number;
  readonly row: number;
  readonly columns: number;
  readonly rows: number;
  readonly hidden: boolean;
  /** How far the block was moved; metres. Nothing to a hidden one. */
  readonly offset: Vector3;
}
