import { MASK_TILE_PIXELS, MAX_MASK_SIDE, maskTileKey, toMicro, type Mask, type PlanPoint } from '@stravel/core';
import { newId } from '../../../../edits/operations';

/** An all solid mask over a rectangle of the plan, no larger than a mask can be. @param y its height, metres */
export function solidMask([x0, z0]: PlanPoint, [x1, z1]: PlanPoint, y: number, pixelsPerMetre: number): Mask {
  const pixels = (a: number, b: number): number =>
    Math.min(MAX_MASK_SIDE, Math.max(1, Math.round(Math.abs(b - a) * pixelsPerMetre)));
  const [columns, rows] = [pixels(x0, x1), pixels(z0, z1)];
  const tiles: Record<string, string> = {};
  for (let row = 0; row * MASK_TILE_PIXELS < rows; row++)
    for (let column = 0; column * MASK_TILE_PIXELS < columns; column++) tiles[maskTileKey(column, row)] = '';
  return {
    id: newId(),
    name: 'mask',
    position: [toMicro(Math.min(x0, x1)), y, toMicro(Math.min(z0, z1))],
    pixelsPerMetre,
    columns,
    rows,
    tiles,
  };
}
