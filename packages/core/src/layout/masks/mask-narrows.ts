import type { RunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import { joinSets, rootOf } from './joined-sets';
import type { MaskBitmap } from './mask-bitmap';
import { labelRegions } from './mask-regions';
import { widthBetweenWalls } from './mask-width';

/** A passage that is narrower than asked for. */
export interface MaskNarrow {
  readonly column: number;
  readonly row: number;
  /** Across, at its narrowest. */
  readonly widthPixels: number;
}

const MAX_WIDTH = 2000;
/** Number of the solid part that surrounds a mask. */
const RIM = -1;

/**
 * Finds the narrow places of a mask: where two parts with room for the width first meet as what has less room is opened, from the most room
 * down; and where two solid parts first meet as they swell. Every place of either kind is a saddle of the clearance; one alone would miss the
 * second door between the same two rooms, the other the first. A passage that leads to nothing as wide is not told.
 * @param clearance of `maskClearance`, walled
 * @param widthPixels above 0, at most 2000
 * @returns narrowest first
 * @throws CoreError 'MASK_WIDTH', 'CANCELLED'
 * Source: H. Edelsbrunner, J. Harer, Computational Topology, 2010, VI (saddles join components or, seen from the complement, components of it).
 */
export function maskNarrows(
  bitmap: MaskBitmap,
  clearance: Int32Array,
  widthPixels: number,
  context: RunContext,
): MaskNarrow[] {
  if (!(widthPixels > 0 && widthPixels <= MAX_WIDTH))
    throw new CoreError('MASK_WIDTH', `mask: a width of ${widthPixels} pixels is not above 0 and at most ${MAX_WIDTH}`);
  const { columns, rows, open } = bitmap;
  const order = narrowPixels(clearance, Math.ceil(widthPixels * widthPixels));
  const wide = { columns, rows, open: new Uint8Array(open.length) };
  for (let i = 0; i < open.length; i++) wide.open[i] = clearance[i] >= widthPixels * widthPixels ? 1 : 0;
  const saddles = new Set([
    ...meetings(bitmap, order.slice().reverse(), labelRegions(wide, 1, context).labels, false, context),
    ...meetings(bitmap, order, withWall(bitmap, context), true, context),
  ]);
  return [...saddles]
    .map((pixel): MaskNarrow => {
      const [column, row] = [pixel % columns, Math.floor(pixel / columns)];
      return { column, row, widthPixels: widthBetweenWalls({ columns, rows, open }, column, row, widthPixels) };
    })
    .filter((narrow) => narrow.widthPixels < widthPixels)
    .sort((a, b) => a.widthPixels - b.widthPixels || a.row - b.row || a.column - b.column);
}

/** Open pixels with less clearance than a limit, least first, those of one clearance in order. */
function narrowPixels(clearance: Int32Array, limit: number): Int32Array {
  const starts = new Int32Array(limit + 2);
  for (const square of clearance) if (square > 0 && square < limit) starts[square + 1]++;
  for (let k = 1; k < starts.length; k++) starts[k] += starts[k - 1];
  const order = new Int32Array(starts[limit + 1]);
  for (let i = 0; i < clearance.length; i++)
    if (clearance[i] > 0 && clearance[i] < limit) order[starts[clearance[i]]++] = i;
  return order;
}

/** Numbers of the solid regions that hang together over corners too; those at the rim are one, with all that lies beyond. */
function withWall({ columns, rows, open }: MaskBitmap, context: RunContext): Int32Array {
  const { labels, sizes } = labelRegions({ columns, rows, open }, 0, context);
  const rim = sizes.length;
  const all = Int32Array.from({ length: rim + 1 }, (_unused, k) => k);
  for (let row = 0, i = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++, i++) {
      if (labels[i] === 0) continue;
      if (row === 0 || column === 0 || row === rows - 1 || column === columns - 1) joinSets(all, labels[i], rim);
      if (row > 0 && column > 0 && labels[i - columns - 1] > 0) joinSets(all, labels[i], labels[i - columns - 1]);
      if (row > 0 && column < columns - 1 && labels[i - columns + 1] > 0)
        joinSets(all, labels[i], labels[i - columns + 1]);
    }
  }
  const rimRoot = rootOf(all, rim);
  for (let i = 0; i < labels.length; i++)
    if (labels[i] > 0) labels[i] = rootOf(all, labels[i]) === rimRoot ? RIM : rootOf(all, labels[i]);
  return labels;
}

/**
 * Pixels at which different parts first meet when pixels join in an order.
 * @param parts number of the part that each pixel is of to begin with, 0 for none; RIM for the one that surrounds the mask
 * @param overCorners whether pixels hang together over corners
 */
function meetings(
  { columns, rows }: MaskBitmap,
  order: Int32Array,
  parts: Int32Array,
  overCorners: boolean,
  context: RunContext,
): number[] {
  // Sets of pixels: those of a part are one from the start, by its first pixel.
  const parents = new Int32Array(parts.length + 1).fill(-1);
  const firsts = new Map<number, number>([[RIM, parts.length]]);
  parents[parts.length] = parts.length;
  const hasPart = new Uint8Array(parts.length + 1);
  hasPart[parts.length] = 1;
  for (let i = 0; i < parts.length; i++) {
    if (parts[i] === 0) continue;
    const first = firsts.get(parts[i]) ?? i;
    firsts.set(parts[i], first);
    parents[i] = first;
    hasPart[first] = 1;
  }
  const found: number[] = [];
  order.forEach((pixel, done) => {
    if (done % 65536 === 0) context.checkCancelled();
    parents[pixel] = pixel;
    const [column, row] = [pixel % columns, Math.floor(pixel / columns)];
    const isAtRim = overCorners && (column === 0 || row === 0 || column === columns - 1 || row === rows - 1);
    if (isAtRim) meet(parts.length, pixel);
    for (let dz = -1; dz <= 1; dz++) {
      for (let dx = -1; dx <= 1; dx++) {
        const [c, r] = [column + dx, row + dz];
        if (
          (dx === 0 && dz === 0) ||
          (!overCorners && dx !== 0 && dz !== 0) ||
          c < 0 ||
          r < 0 ||
          c >= columns ||
          r >= rows
        )
          continue;
        if (parents[r * columns + c] >= 0) meet(r * columns + c, pixel);
      }
    }
  });
  return found;

  function meet(other: number, pixel: number): void {
    const [a, b] = [rootOf(parents, pixel), rootOf(parents, other)];
    if (a === b) return;
    if (hasPart[a] === 1 && hasPart[b] === 1) found.push(pixel);
    const has = hasPart[a] | hasPart[b];
    hasPart[joinSets(parents, a, b)] = has;
  }
}
