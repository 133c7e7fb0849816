import type { RunContext } from '../../context/run-context';
import type { MaskBitmap } from './mask-bitmap';

/**
 * How far the middle of each pixel is from the nearest solid pixel, taken as a full square.
 * @param options.isWalled whether all beyond the mask is solid too
 * @returns squares of twice the distance in pixels: whole numbers, 0 for solid ones; `FAR` where nothing is solid
 * @throws CoreError 'CANCELLED'
 * Source: P. Felzenszwalb, D. Huttenlocher, Distance Transforms of Sampled Functions, Theory of Computing 8, 2012. Differs in: distances
 * to squares and not to their middles: a column's parabola stands on each edge between two columns and serves the side beyond it.
 */
export function maskClearance(
  { columns, rows, open }: MaskBitmap,
  { isWalled }: { readonly isWalled: boolean },
  context: RunContext,
): Int32Array {
  const result = new Int32Array(columns * rows);
  // Twice the distance along the column: odd numbers, 0 for solid.
  const beyond = isWalled ? -1 : FAR_LINE;
  for (let i = 0; i < open.length; i++)
    result[i] = open[i] === 0 ? 0 : stepped(i < columns ? beyond : result[i - columns]);
  for (let i = open.length - 1; i >= 0; i--) {
    if (open[i] === 0) continue;
    const distance = stepped(i + columns < open.length ? result[i + columns] : beyond);
    if (distance < result[i]) result[i] = distance;
  }
  const squares = new Float64Array(columns);
  const heights = new Float64Array(columns + 1);
  const sites = new Int32Array(columns + 1);
  const starts = new Float64Array(columns + 2);
  const wall = isWalled ? 0 : FAR;
  for (let row = 0; row < rows; row++) {
    if (row % 64 === 0) {
      context.checkCancelled();
      context.progress(row / rows, 'clearance');
    }
    const at = row * columns;
    for (let x = 0; x < columns; x++) squares[x] = result[at + x] >= FAR_LINE ? FAR : result[at + x] * result[at + x];
    for (let k = 0; k <= columns; k++)
      heights[k] = Math.min(k > 0 ? squares[k - 1] : wall, k < columns ? squares[k] : wall);
    // Lower envelope of the parabolas that stand on the edges; edge k lies at 2k − 1, the middle of pixel x at 2x.
    let top = 0;
    sites[0] = 0;
    starts[0] = -Infinity;
    starts[1] = Infinity;
    for (let k = 1; k <= columns; k++) {
      let start = crossing(sites[top], k, heights);
      while (start <= starts[top]) start = crossing(sites[--top], k, heights);
      sites[++top] = k;
      starts[top] = start;
      starts[top + 1] = Infinity;
    }
    for (let x = 0, t = 0; x < columns; x++) {
      while (starts[t + 1] < 2 * x) t++;
      const away = 2 * x - (2 * sites[t] - 1);
      result[at + x] = Math.min(FAR, squares[x], away * away + heights[sites[t]]);
    }
  }
  return result;
}

/** Clearance where nothing is solid. */
export const FAR = 1 << 29;
const FAR_LINE = 1 << 14;

function stepped(distance: number): number {
  return distance >= FAR_LINE ? FAR_LINE : distance <= 0 ? 1 : distance + 2;
}

/** Where the parabola on edge b begins to lie under that on edge a, a < b. */
function crossing(a: number, b: number, heights: Float64Array): number {
  const [pa, pb] = [2 * a - 1, 2 * b - 1];
  return (heights[b] + pb * pb - (heights[a] + pa * pa)) / (2 * (pb - pa));
}
