import type { MaskBitmap } from './mask-bitmap';

type Pixel = readonly [number, number];

/**
 * The least distance between the walls on either side of a pixel: from the wall nearest to its middle to the nearest one behind it, then to
 * and fro between both sides until neither comes nearer. Pixels are full squares; all beyond the mask is solid.
 * @param limit Infinity is returned for what is not narrower
 * Cost: O(width²) a step.
 */
export function widthBetweenWalls(bitmap: MaskBitmap, column: number, row: number, limit: number): number {
  const middle: Pixel = [column, row];
  const first = nearestSolid(bitmap, middle, fromMiddle, limit, () => true);
  if (!first) return Infinity;
  const [nx, nz] = [
    gap(column, first[0]) * Math.sign(first[0] - column),
    gap(row, first[1]) * Math.sign(first[1] - row),
  ];
  const side = (pixel: Pixel): number => (pixel[0] - column) * nx + (pixel[1] - row) * nz;
  const isBehind = (pixel: Pixel): boolean => side(pixel) < 0;
  const isBefore = (pixel: Pixel): boolean => side(pixel) > 0;
  let ends: [Pixel, Pixel | undefined] = [first, nearestSolid(bitmap, middle, fromMiddle, limit, isBehind)];
  let least = Infinity;
  for (;;) {
    const [before, behind] = ends;
    if (!behind) return least;
    const width = distance(before, behind);
    if (!(width < least)) return least < limit ? least : Infinity;
    least = width;
    const nearer = nearestSolid(bitmap, behind, distance, limit, isBefore) ?? before;
    ends = [nearer, nearestSolid(bitmap, nearer, distance, limit, isBehind)];
  }
}

/** The solid pixel nearest to another of those that count, no farther than a limit; rings of squares around it, from the inside out. */
function nearestSolid(
  { columns, rows, open }: MaskBitmap,
  from: Pixel,
  distanceOf: (a: Pixel, b: Pixel) => number,
  limit: number,
  counts: (pixel: Pixel) => boolean,
): Pixel | undefined {
  let best: Pixel | undefined;
  let least = limit + 1;
  const look = (c: number, r: number): void => {
    if (c >= 0 && r >= 0 && c < columns && r < rows && open[r * columns + c] === 1) return;
    const pixel: Pixel = [c, r];
    const away = distanceOf(from, pixel);
    if (away >= least || !counts(pixel)) return;
    best = pixel;
    least = away;
  };
  for (let ring = 1; ring - 1 < least; ring++) {
    for (let k = -ring; k < ring; k++) {
      look(from[0] + k, from[1] - ring);
      look(from[0] + ring, from[1] + k);
      look(from[0] - k, from[1] + ring);
      look(from[0] - ring, from[1] - k);
    }
  }
  return best;
}

/** Distance between two pixels as full squares. */
function distance(a: Pixel, b: Pixel): number {
  const [x, z] = [Math.max(0, gap(a[0], b[0]) - 0.5), Math.max(0, gap(a[1], b[1]) - 0.5)];
  return Math.sqrt(x * x + z * z);
}

/** From the middle of a pixel to another as a full square. */
function fromMiddle(a: Pixel, b: Pixel): number {
  const [x, z] = [gap(a[0], b[0]), gap(a[1], b[1])];
  return Math.sqrt(x * x + z * z);
}

/** From the middle of one pixel to the near edge of another, along an axis. */
function gap(a: number, b: number): number {
  return Math.max(0, Math.abs(a - b) - 0.5);
}
