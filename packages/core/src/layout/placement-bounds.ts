import { turnMatrix } from '../geometry/turn';
import { PLACEMENT_NUMBERS, threeAt } from '../items/placement/columns';
import type { Placement } from '../model/placement';
import type { Box3 } from '../model/vector';

/** Upright bounds of a placed piece, metres. */
export function placementBounds(
  { position, turn, scale }: Pick<Placement, 'position' | 'turn' | 'scale'>,
  piece: Box3,
): Box3 {
  const out = new Float64Array(6);
  placedBounds(Float64Array.of(...position, ...turn, ...scale), 0, piece, out, 0);
  return { min: [out[0], out[1], out[2]], max: [out[3], out[4], out[5]] };
}

/**
 * The same of one placement of columns, without a box made for it.
 * @param i number of the placement
 * @param out six numbers from `to` on: least x, y, z, then greatest
 */
export function placedBounds(
  numbers: Float64Array,
  i: number,
  { min, max }: Box3,
  out: Float64Array | number[],
  to: number,
): void {
  const at = i * PLACEMENT_NUMBERS;
  const m = turnMatrix([numbers[at + 3], numbers[at + 4], numbers[at + 5]]);
  const [sx, sy, sz] = threeAt(numbers, at + 6);
  // As far either way where it is mirrored.
  const half = (k: number, scale: number): number => Math.abs(((max[k] - min[k]) / 2) * scale);
  const [hx, hy, hz] = [half(0, sx), half(1, sy), half(2, sz)];
  const [cx, cy, cz] = [((max[0] + min[0]) / 2) * sx, ((max[1] + min[1]) / 2) * sy, ((max[2] + min[2]) / 2) * sz];
  for (let k = 0; k < 3; k++) {
    const [a, b, c] = [m[k * 3], m[k * 3 + 1], m[k * 3 + 2]];
    const middle = numbers[at + k] + (a * cx + b * cy + c * cz);
    const reach = Math.abs(a) * hx + Math.abs(b) * hy + Math.abs(c) * hz;
    out[to + k] = middle - reach;
    out[to + 3 + k] = middle + reach;
  }
}
