import type { Vector3 } from './vector';

/** Side of the tiles in which a mask's pixels are kept: an edit writes only those it touches. */
export const MASK_TILE_PIXELS = 256;
/** Most pixels along a side of a mask. */
export const MAX_MASK_SIDE = 4096;

/** A bitmap whose pixels are open or solid, lying flat in the level. */
export interface Mask {
  readonly id: string;
  readonly name: string;
  /** Corner of least x and z: the outer corner of its first pixel. */
  readonly position: Vector3;
  readonly pixelsPerMetre: number;
  readonly columns: number;
  readonly rows: number;
  /** Runs of pixels by tile, see `maskTileKey` and `readTile`. */
  readonly tiles: Readonly<Record<string, string>>;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}

/** Name of a tile by its place, both from 0. */
export function maskTileKey(tileColumn: number, tileRow: number): string {
  return `${tileColumn}-${tileRow}`;
}
