import type { RunContext } from '../../context/run-context';
import { joinSets, rootOf } from './joined-sets';
import type { MaskBitmap } from './mask-bitmap';

/** Pixels of one value that hang together side by side. */
export interface LabelledRegions {
  /** Number of the region of each pixel from 1; 0 for pixels of the other value. */
  readonly labels: Int32Array;
  /** By number; the first is unused. */
  readonly sizes: Int32Array;
  /** Four a region: least column and row, greatest column and row. */
  readonly bounds: Int32Array;
}

/**
 * Names the regions of open (1) or solid (0) pixels, in order of their first pixel.
 * @throws CoreError 'CANCELLED'
 * Source: J. Hoshen, R. Kopelman, Percolation and cluster distribution, Physical Review B 14, 1976.
 */
export function labelRegions({ columns, rows, open }: MaskBitmap, value: 0 | 1, context: RunContext): LabelledRegions {
  const labels = new Int32Array(open.length);
  const parents: number[] = [0];
  for (let row = 0, i = 0; row < rows; row++) {
    if (row % 256 === 0) context.checkCancelled();
    for (let column = 0; column < columns; column++, i++) {
      if (open[i] !== value) continue;
      const left = column > 0 ? labels[i - 1] : 0;
      const above = row > 0 ? labels[i - columns] : 0;
      if (left === 0 && above === 0) {
        labels[i] = parents.length;
        parents.push(parents.length);
      } else if (left === 0 || above === 0) labels[i] = left + above;
      else labels[i] = joinSets(parents, left, above);
    }
  }
  // A root is the least of its region, so numbers in order of roots are in order of first pixels.
  const numbers = new Int32Array(parents.length);
  let count = 0;
  for (let i = 1; i < parents.length; i++) numbers[i] = parents[i] === i ? ++count : numbers[rootOf(parents, i)];
  const sizes = new Int32Array(count + 1);
  const bounds = new Int32Array((count + 1) * 4);
  for (let k = 0; k <= count; k++) bounds.set([columns, rows, -1, -1], k * 4);
  for (let row = 0, i = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++, i++) {
      const label = labels[i];
      if (label === 0) continue;
      const number = numbers[label];
      labels[i] = number;
      sizes[number]++;
      const at = number * 4;
      if (column < bounds[at]) bounds[at] = column;
      if (row < bounds[at + 1]) bounds[at + 1] = row;
      if (column > bounds[at + 2]) bounds[at + 2] = column;
      if (row > bounds[at + 3]) bounds[at + 3] = row;
    }
  }
  return { labels, sizes, bounds };
}

/** Turns regions of fewer than `leastPixels` over, solid ones first. Changes the bitmap. @returns how many were turned over */
export function fillSpecks(bitmap: MaskBitmap, leastPixels: number, context: RunContext): number {
  if (leastPixels <= 1) return 0;
  let count = 0;
  for (const value of [0, 1] as const) {
    const { labels, sizes } = labelRegions(bitmap, value, context);
    for (let i = 0; i < labels.length; i++)
      if (labels[i] > 0 && sizes[labels[i]] < leastPixels) bitmap.open[i] = 1 - value;
    count += sizes.reduce((sum, size, k) => sum + (k > 0 && size < leastPixels ? 1 : 0), 0);
  }
  return count;
}
