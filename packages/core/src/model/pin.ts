import type { Vector3 } from './vector';

/** A hand edit inside a section that survives regeneration, by the kind of recipe. All but a burrow's tell their kind in `of`. */
export interface PinOfKind {
  readonly burrow: WallPin;
}
export type Pin = PinOfKind[keyof PinOfKind];

/** What every pin has. */
export interface PinBase {
  readonly id: string;
  readonly recipe: string;
}

/** The squares of one wall block of a burrow are held free of walls, and the block is hidden, or stands where it was moved to. */
export interface WallPin extends PinBase {
  /** Least column and row, from 0, and size of the wall block, in squares. */
  readonly column: number;
  readonly row: number;
  readonly columns: number;
  readonly rows: number;
  readonly hidden: boolean;
  /** How far the block was moved; metres. Nothing to a hidden one. */
  readonly offset: Vector3;
}
