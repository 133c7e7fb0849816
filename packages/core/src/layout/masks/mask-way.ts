import type { RunContext } from '../../context/run-context';
import type { MaskBitmap } from './mask-bitmap';

/** Cost of a step to the side and across a corner; 7 to 5 is near the root of two. */
const SIDE_COST = 5;
const CORNER_COST = 7;
const BUCKETS = CORNER_COST + 1;
const NOT_REACHED = -1;

/** All places that a body comes to from one. */
export interface MaskReach {
  /** Cost of the way to each pixel, -1 where it does not come. */
  readonly costs: Int32Array;
  /** The way to a pixel that is reached, drawn straight where it can be: columns and rows in turn. */
  wayTo(pixel: number): Int32Array;
}

/**
 * Walks from a pixel over all that fits, to eight neighbours, never across the corner of what does not fit.
 * @param fits 1 where the middle of the body may be
 * @throws CoreError 'CANCELLED'
 * Source: R. Dial, Algorithm 360: shortest-path forest with topological ordering, Communications of the ACM 12, 1969.
 */
export function maskReach(
  { columns, rows }: MaskBitmap,
  fits: Uint8Array,
  start: number,
  context: RunContext,
): MaskReach {
  const costs = new Int32Array(fits.length).fill(NOT_REACHED);
  const buckets: number[][] = Array.from({ length: BUCKETS }, () => []);
  costs[start] = 0;
  buckets[0].push(start);
  let waiting = 1;
  let settled = 0;
  const visit = (pixel: number, cost: number): void => {
    if (costs[pixel] !== NOT_REACHED && costs[pixel] <= cost) return;
    costs[pixel] = cost;
    buckets[cost % BUCKETS].push(pixel);
    waiting++;
  };
  for (let cost = 0; waiting > 0; cost++) {
    const bucket = buckets[cost % BUCKETS];
    for (let pixel = bucket.pop(); pixel !== undefined; pixel = bucket.pop()) {
      waiting--;
      if (costs[pixel] !== cost) continue;
      if (++settled % 65536 === 0) {
        context.checkCancelled();
        context.progress(settled / fits.length, 'the way');
      }
      const column = pixel % columns;
      const west = column > 0 && fits[pixel - 1] === 1;
      const east = column < columns - 1 && fits[pixel + 1] === 1;
      const north = pixel >= columns && fits[pixel - columns] === 1;
      const south = pixel < (rows - 1) * columns && fits[pixel + columns] === 1;
      if (west) visit(pixel - 1, cost + SIDE_COST);
      if (east) visit(pixel + 1, cost + SIDE_COST);
      if (north) visit(pixel - columns, cost + SIDE_COST);
      if (south) visit(pixel + columns, cost + SIDE_COST);
      if (north && west && fits[pixel - columns - 1] === 1) visit(pixel - columns - 1, cost + CORNER_COST);
      if (north && east && fits[pixel - columns + 1] === 1) visit(pixel - columns + 1, cost + CORNER_COST);
      if (south && west && fits[pixel + columns - 1] === 1) visit(pixel + columns - 1, cost + CORNER_COST);
      if (south && east && fits[pixel + columns + 1] === 1) visit(pixel + columns + 1, cost + CORNER_COST);
    }
  }
  return { costs, wayTo: (pixel) => straightened(stepsBack(costs, columns, rows, pixel), columns, fits) };
}

/** Pixels of a shortest way, from the start. */
function stepsBack(costs: Int32Array, columns: number, rows: number, end: number): number[] {
  const steps = [end];
  for (let pixel = end; costs[pixel] > 0; steps.push(pixel)) {
    const from = pixel;
    const [column, row] = [pixel % columns, Math.floor(pixel / columns)];
    for (let dz = -1; dz <= 1 && pixel === from; dz++) {
      for (let dx = -1; dx <= 1 && pixel === from; dx++) {
        const [c, r] = [column + dx, row + dz];
        if ((dx === 0 && dz === 0) || c < 0 || r < 0 || c >= columns || r >= rows) continue;
        const near = r * columns + c;
        if (
          costs[near] === NOT_REACHED ||
          costs[near] !== costs[from] - (dx === 0 || dz === 0 ? SIDE_COST : CORNER_COST)
        )
          continue;
        // Corners that were not crossed on the way there are not crossed on the way back.
        if (
          dx !== 0 &&
          dz !== 0 &&
          (costs[row * columns + c] === NOT_REACHED || costs[r * columns + column] === NOT_REACHED)
        )
          continue;
        pixel = near;
      }
    }
  }
  return steps.reverse();
}

/** Leaves out every point that a straight line over what fits can do without. */
function straightened(steps: readonly number[], columns: number, fits: Uint8Array): Int32Array {
  const kept = [steps[0]];
  for (let i = 2; i < steps.length; i++)
    if (!isClear(kept[kept.length - 1], steps[i], columns, fits)) kept.push(steps[i - 1]);
  if (steps.length > 1) kept.push(steps[steps.length - 1]);
  return Int32Array.from(kept.flatMap((pixel) => [pixel % columns, Math.floor(pixel / columns)]));
}

/**
 * Whether a body can go straight from the middle of one pixel to that of another: wherever the line passes between four middles, all four
 * fit. Solid pixels are squares on the same lattice, so that between middles no point is nearer to a solid one than the nearest of them.
 */
function isClear(a: number, b: number, columns: number, fits: Uint8Array): boolean {
  const [ac, ar, bc, br] = [a % columns, Math.floor(a / columns), b % columns, Math.floor(b / columns)];
  const isSteep = Math.abs(br - ar) > Math.abs(bc - ac);
  const [from, to, low, rise] = isSteep ? [ar, br, ac, bc - ac] : [ac, bc, ar, br - ar];
  const steps = Math.abs(to - from);
  const way = to < from ? -1 : 1;
  for (let k = 0; k < steps; k++) {
    // The line between two middles of the longer axis, in whole numbers: exact.
    const [one, other] = [rise * k, rise * (k + 1)];
    const [least, most] = [Math.floor(Math.min(one, other) / steps), Math.ceil(Math.max(one, other) / steps)];
    for (let across = low + least; across <= low + most; across++) {
      for (const along of [from + way * k, from + way * (k + 1)])
        if (fits[isSteep ? along * columns + across : across * columns + along] === 0) return false;
    }
  }
  return true;
}
