import { CoreError } from '../../errors';
import { MASK_TILE_PIXELS, maskTileKey, type Mask } from '../../model/mask';

/** Pixels row by row: 1 open, 0 solid. */
export interface MaskBitmap {
  readonly columns: number;
  readonly rows: number;
  readonly open: Uint8Array;
}

const SIDE = MASK_TILE_PIXELS;

/** All pixels of a mask. @throws CoreError 'MASK_TILE' naming a tile whose runs cannot be read */
export function bitmapOfMask({ columns, rows, tiles }: Pick<Mask, 'columns' | 'rows' | 'tiles'>): MaskBitmap {
  const open = new Uint8Array(columns * rows);
  for (let tileRow = 0; tileRow * SIDE < rows; tileRow++) {
    for (let tileColumn = 0; tileColumn * SIDE < columns; tileColumn++) {
      const key = maskTileKey(tileColumn, tileRow);
      const text = Object.hasOwn(tiles, key) ? tiles[key] : '';
      if (text === '') continue;
      const pixels = readTile(text, key);
      const width = Math.min(SIDE, columns - tileColumn * SIDE);
      const height = Math.min(SIDE, rows - tileRow * SIDE);
      for (let y = 0; y < height; y++)
        open.set(pixels.subarray(y * SIDE, y * SIDE + width), (tileRow * SIDE + y) * columns + tileColumn * SIDE);
    }
  }
  return { columns, rows, open };
}

/** The runs of all tiles of a bitmap. */
export function tilesOfBitmap(bitmap: MaskBitmap): Record<string, string> {
  const tiles: Record<string, string> = {};
  for (let tileRow = 0; tileRow * SIDE < bitmap.rows; tileRow++) {
    for (let tileColumn = 0; tileColumn * SIDE < bitmap.columns; tileColumn++)
      tiles[maskTileKey(tileColumn, tileRow)] = tileText(bitmap, tileColumn, tileRow);
  }
  return tiles;
}

/** One tile as runs: numbers of pixels in order of row and column, solid and open in turn, solid first; what comes after the last run is solid. */
export function tileText({ columns, rows, open }: MaskBitmap, tileColumn: number, tileRow: number): string {
  const runs: number[] = [];
  let value = 0;
  let length = 0;
  for (let y = 0; y < SIDE; y++) {
    const row = tileRow * SIDE + y;
    for (let x = 0; x < SIDE; x++) {
      const column = tileColumn * SIDE + x;
      const pixel = row < rows && column < columns ? open[row * columns + column] : 0;
      if (pixel === value) length++;
      else {
        runs.push(length);
        value = pixel;
        length = 1;
      }
    }
  }
  if (value === 1) runs.push(length);
  return runs.join(' ');
}

/** The pixels of a tile, 256 a row. @throws CoreError 'MASK_TILE' naming the tile and what is wrong with its runs */
export function readTile(text: string, key: string): Uint8Array {
  const pixels = new Uint8Array(SIDE * SIDE);
  if (text === '') return pixels;
  let at = 0;
  let value = 0;
  for (const [i, word] of text.split(' ').entries()) {
    const length = /^\d{1,5}$/.test(word) ? Number(word) : NaN;
    if (!(length >= 0 && at + length <= pixels.length)) {
      throw new CoreError(
        'MASK_TILE',
        `mask: run ${i + 1} of tile ${key} is "${word.slice(0, 20)}", after ${at} of ${pixels.length} pixels`,
        { tile: key },
      );
    }
    if (value === 1) pixels.fill(1, at, at + length);
    at += length;
    value = 1 - value;
  }
  return pixels;
}
