import type { Box3 } from '../model/vector';
import { PLACEMENT_NUMBERS } from '../items/placement/columns';
import type { LevelContent } from './level-content';
import { placementsOf } from './level-placements';

/** Room left around what stands at the edge, metres. */
const MARGIN_METRES = 1;

/** A box around the places of all items of a level, whatever their own size; null when nothing stands there. */
export function contentExtent(strata: LevelContent['strata']): Box3 | null {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  const take = (x: number, y: number, z: number): void => {
    [x, y, z].forEach((value, k) => {
      min[k] = Math.min(min[k], value - MARGIN_METRES);
      max[k] = Math.max(max[k], value + MARGIN_METRES);
    });
  };
  for (const one of strata) {
    const { content } = one;
    for (const { position } of [...content.block, ...content.marker, ...content.volume]) take(...position);
    for (const { corners, baseMetres } of content.wall)
      for (const { position } of corners) take(position[0], baseMetres, position[1]);
    const { numbers } = placementsOf(one);
    for (let at = 0; at < numbers.length; at += PLACEMENT_NUMBERS) take(numbers[at], numbers[at + 1], numbers[at + 2]);
    for (const { position, columns, rows, squareMetres } of content.tileFloor) {
      take(...position);
      take(position[0] + columns * squareMetres, position[1], position[2] + rows * squareMetres);
    }
    for (const { position, columns, rows, pixelsPerMetre } of content.mask) {
      take(...position);
      take(position[0] + columns / pixelsPerMetre, position[1], position[2] + rows / pixelsPerMetre);
    }
  }
  return Number.isFinite(min[0]) ? { min, max } : null;
}
