import { MASK_TILE_PIXELS, maskTileKey, type Mask } from '../../model/mask';
import type { PlanPoint } from '../../model/vector';
import { readTile, tileText } from './mask-bitmap';

const SIDE = MASK_TILE_PIXELS;

/** A line drawn with a round brush. */
export interface MaskStroke {
  /** Metres in the level; at least one. */
  readonly points: readonly PlanPoint[];
  readonly radiusMetres: number;
  /** What it leaves behind. */
  readonly open: boolean;
}

/**
 * The tiles that a stroke changes, with their new runs; a pixel is painted when its middle is no farther from the line than the radius,
 * and the pixel under each point always is.
 */
export function strokeTiles(mask: Mask, { points, radiusMetres, open }: MaskStroke): Record<string, string> {
  const scale = mask.pixelsPerMetre;
  const line = points.map(([x, z]): PlanPoint => [(x - mask.position[0]) * scale, (z - mask.position[2]) * scale]);
  const radius = radiusMetres * scale;
  const changed: Record<string, string> = {};
  const [across, down] = [Math.ceil(mask.columns / SIDE), Math.ceil(mask.rows / SIDE)];
  const tileAt = (value: number, count: number): number => Math.min(count - 1, Math.max(0, Math.floor(value / SIDE)));
  const [xs, zs] = [line.map(([x]) => x), line.map(([, z]) => z)];
  const reach = radius + 1;
  for (let tileRow = tileAt(least(zs) - reach, down); tileRow <= tileAt(most(zs) + reach, down); tileRow++) {
    for (
      let tileColumn = tileAt(least(xs) - reach, across);
      tileColumn <= tileAt(most(xs) + reach, across);
      tileColumn++
    ) {
      const key = maskTileKey(tileColumn, tileRow);
      const before = mask.tiles[key] ?? '';
      const pixels = readTile(before, key);
      const [left, top] = [tileColumn * SIDE, tileRow * SIDE];
      const [width, height] = [Math.min(SIDE, mask.columns - left), Math.min(SIDE, mask.rows - top)];
      for (const [i, point] of line.entries())
        paintPiece(pixels, line[Math.max(0, i - 1)], point, radius, open ? 1 : 0, left, top, width, height);
      const after = tileText({ columns: SIDE, rows: SIDE, open: pixels }, 0, 0);
      if (after !== before) changed[key] = after;
    }
  }
  return changed;
}

function paintPiece(
  pixels: Uint8Array,
  a: PlanPoint,
  b: PlanPoint,
  radius: number,
  value: number,
  left: number,
  top: number,
  width: number,
  height: number,
): void {
  const [ax, az, bx, bz] = [a[0] - left, a[1] - top, b[0] - left, b[1] - top];
  const [dx, dz] = [bx - ax, bz - az];
  const square = dx * dx + dz * dz;
  const [x0, x1] = [
    Math.max(0, Math.floor(Math.min(ax, bx) - radius)),
    Math.min(width - 1, Math.floor(Math.max(ax, bx) + radius)),
  ];
  const [z0, z1] = [
    Math.max(0, Math.floor(Math.min(az, bz) - radius)),
    Math.min(height - 1, Math.floor(Math.max(az, bz) + radius)),
  ];
  for (let z = z0; z <= z1; z++) {
    for (let x = x0; x <= x1; x++) {
      const [px, pz] = [x + 0.5 - ax, z + 0.5 - az];
      const t = square > 0 ? Math.min(1, Math.max(0, (px * dx + pz * dz) / square)) : 0;
      const [ox, oz] = [px - t * dx, pz - t * dz];
      if (ox * ox + oz * oz <= radius * radius || (Math.floor(bx) === x && Math.floor(bz) === z))
        pixels[z * SIDE + x] = value;
    }
  }
}

function least(values: readonly number[]): number {
  return values.reduce((a, b) => Math.min(a, b), Infinity);
}

function most(values: readonly number[]): number {
  return values.reduce((a, b) => Math.max(a, b), -Infinity);
}
