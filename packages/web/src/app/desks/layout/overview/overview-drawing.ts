import type { PlateDrawing } from '../../../plate/plate-drawing';
import type { Overview } from './overview-desk';

/** How much of the plan shows through where it fades. */
const FADED = 0.72;
const PAINTED = 0.6;
/** Most things that are dotted one by one. */
const MAX_DOTS = 20000;

/** Fades the plan, paints the density of what is looked at, and frames the regions that stand out: crowded whole, empty dashed. */
export function drawOverview({ view, context, colours, at, scale }: PlateDrawing, { items, density }: Overview): void {
  if (view !== 'plan') return;
  const { columns, rows, cellMetres, origin, cells, mean } = density;
  context.globalAlpha = FADED;
  context.fillStyle = colours.plate;
  context.fillRect(0, 0, context.canvas.clientWidth, context.canvas.clientHeight);
  const side = cellMetres * scale;
  const first = at(origin[0], 0, origin[1]);
  if (!first) return;
  context.fillStyle = colours.costHigh;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const share = Math.min(1, cells[row * columns + column] / (mean * 4));
      if (share < 0.02) continue;
      context.globalAlpha = PAINTED * share;
      // Whole pixels: where two cells met or overlapped a little, a line would show.
      const [left, top] = [Math.round(first[0] + column * side), Math.round(first[1] + row * side)];
      context.fillRect(
        left,
        top,
        Math.round(first[0] + (column + 1) * side) - left,
        Math.round(first[1] + (row + 1) * side) - top,
      );
    }
  }
  context.globalAlpha = 1;
  context.fillStyle = colours.ink;
  for (const { x, z } of items.slice(0, MAX_DOTS)) {
    const p = at(x, 0, z);
    if (p) context.fillRect(p[0] - 1.5, p[1] - 1.5, 3, 3);
  }
  context.lineWidth = 2;
  context.font = "12px 'Spline Sans', sans-serif";
  for (const { kind, low, high } of density.regions) {
    const [a, b] = [at(low[0], 0, low[1]), at(high[0], 0, high[1])];
    if (!a || !b) continue;
    context.strokeStyle = context.fillStyle = kind === 'crowded' ? colours.over : colours.softInk;
    context.setLineDash(kind === 'crowded' ? [] : [6, 4]);
    context.strokeRect(a[0], a[1], b[0] - a[0], b[1] - a[1]);
    context.fillText(kind, a[0] + 4, a[1] + 14);
  }
  context.setLineDash([]);
}
