import type { Cell, CellGrid, CutLevel, PlanPoint, RehearsalResult } from '@stravel/core';
import { costColour, isOverLimit, type CostScale } from '../../plate/cost-scale';
import type { PlateDrawing } from '../../plate/plate-drawing';
import type { CellMeasure } from './store/cells-store';

/** Cells narrower than this on the screen carry no figures, pixels. */
const MIN_TEXT_PIXELS = 72;
const FIGURE_FONT = "11px 'Spline Sans Mono', monospace";
const MAX_FIRED_MARKS = 500;

/** What of a cell is shown by a measure. */
export function measureOf(
  cell: Pick<Cell, 'memoryBytes' | 'triangles' | 'blocks' | 'placements'>,
  measure: CellMeasure,
): number {
  return measure === 'bytes'
    ? cell.memoryBytes
    : measure === 'triangles'
      ? cell.triangles
      : cell.blocks + cell.placements;
}

/** How cells are painted. */
export interface CellsPaint {
  readonly measure: CellMeasure;
  readonly text: (value: number) => string;
  /** Keys of the cell in hand, and of that under the pointer. */
  readonly chosen: string | null;
  readonly hovered: string | undefined;
  readonly late: ReadonlySet<string>;
  readonly scale: CostScale;
}

/** Cells with what is in them, coloured by it. Their kits count with the first cell that needs them. */
export function paintCells(
  { context, colours, at, view }: PlateDrawing,
  cut: CutLevel,
  { measure, text, chosen, hovered, late, scale }: CellsPaint,
): void {
  if (view !== 'plan') return;
  for (const cell of cut.cells) {
    const value = measureOf(cell, measure);
    const a = at(cell.min[0], 0, cell.min[1]);
    const b = at(cell.max[0], 0, cell.max[1]);
    if (!a || !b) continue;
    const [width, height] = [b[0] - a[0], b[1] - a[1]];
    context.globalAlpha = 0.72;
    context.fillStyle = costColour(colours, scale, value);
    context.fillRect(a[0], a[1], width, height);
    context.globalAlpha = 1;
    const isLate = late.has(cell.key);
    context.strokeStyle = cell.key === chosen ? colours.brine : isLate ? colours.over : colours.softInk;
    context.lineWidth = isLate ? 3 : cell.key === chosen ? 2.5 : 0.8;
    context.setLineDash(isLate ? [7, 3] : []);
    context.strokeRect(a[0] + 1, a[1] + 1, width - 2, height - 2);
    context.setLineDash([]);
    if (cell.straddling > 0) {
      const tick = Math.min(9, width / 5);
      context.fillStyle = colours.softInk;
      context.beginPath();
      context.moveTo(b[0] - 1, b[1] - 1);
      context.lineTo(b[0] - 1 - tick, b[1] - 1);
      context.lineTo(b[0] - 1, b[1] - 1 - tick);
      context.fill();
    }
    if (isLate) flag(context, a[0], a[1], colours.over);
    if (width < MIN_TEXT_PIXELS && cell.key !== hovered) continue;
    context.font = FIGURE_FONT;
    const isOver = isOverLimit(scale, value);
    const words = (isOver ? '▲ ' : '') + text(value);
    // On a dark fill a figure stands on a raised chip, and so does one that has no room in its cell.
    if (isOver || width < MIN_TEXT_PIXELS) {
      context.fillStyle = colours.paper;
      context.fillRect(a[0] + 3, a[1] + 3, context.measureText(words).width + 6, 15);
    }
    context.fillStyle = isOver ? colours.over : colours.ink;
    context.fillText(words, a[0] + 6, a[1] + 14);
  }
}

/** At the corner of a cell that came late. */
function flag(context: CanvasRenderingContext2D, x: number, y: number, colour: string): void {
  context.strokeStyle = context.fillStyle = colour;
  context.lineWidth = 2;
  context.beginPath();
  context.moveTo(x + 2, y + 2);
  context.lineTo(x + 2, y - 14);
  context.stroke();
  context.beginPath();
  context.moveTo(x + 2, y - 14);
  context.lineTo(x + 14, y - 10);
  context.lineTo(x + 2, y - 6);
  context.fill();
}

/** The path, where one stood when something was late, and the reach of the load rule about one spot. */
export function drawWalk(
  drawing: PlateDrawing,
  knots: readonly PlanPoint[],
  grid: CellGrid | undefined,
  result: RehearsalResult | undefined,
  spot: readonly [number, number] | null,
  floor: number,
): void {
  const { context, colours, at, view, scale } = drawing;
  const trace = (points: readonly (readonly [number, number])[]): void => {
    context.beginPath();
    let started = false;
    for (const [x, z] of points) {
      const p = at(x, floor, z);
      if (!p) continue;
      if (started) context.lineTo(...p);
      else context.moveTo(...p);
      started = true;
    }
    context.stroke();
  };
  context.strokeStyle = colours.brine;
  context.lineWidth = 2.5;
  trace(knots);
  knots.forEach(([x, z], i) => {
    const p = at(x, floor, z);
    if (!p) return;
    context.fillStyle = i === 0 ? colours.brine : colours.plate;
    context.fillRect(p[0] - 4, p[1] - 4, 8, 8);
    context.strokeRect(p[0] - 4, p[1] - 4, 8, 8);
  });
  for (const gap of result?.gaps ?? []) {
    context.strokeStyle = colours.over;
    context.lineWidth = 6;
    trace([
      [gap.from[0], gap.from[2]],
      [gap.to[0], gap.to[2]],
    ]);
  }
  context.strokeStyle = colours.volume;
  context.lineWidth = 2;
  for (const { at: from } of result?.fired.slice(0, MAX_FIRED_MARKS) ?? []) {
    const p = at(from[0], floor, from[2]);
    if (!p) continue;
    context.beginPath();
    context.moveTo(p[0], p[1] - 6);
    context.lineTo(p[0] + 6, p[1]);
    context.lineTo(p[0], p[1] + 6);
    context.lineTo(p[0] - 6, p[1]);
    context.closePath();
    context.stroke();
  }
  for (const {
    at: [x, , z],
  } of result?.late ?? []) {
    const p = at(x, floor, z);
    if (!p) continue;
    context.fillStyle = colours.over;
    context.beginPath();
    context.moveTo(p[0], p[1] - 9);
    context.lineTo(p[0] + 8, p[1] + 6);
    context.lineTo(p[0] - 8, p[1] + 6);
    context.closePath();
    context.fill();
  }
  const here = spot && at(spot[0], floor, spot[1]);
  if (!here) return;
  context.strokeStyle = colours.brine;
  context.lineWidth = 2;
  context.beginPath();
  context.arc(here[0], here[1], 6, 0, Math.PI * 2);
  context.stroke();
  if (view !== 'plan' || !grid) return;
  for (const [metres, dash] of [
    [grid.loadMetres, []],
    [grid.dropMetres, [4, 5]],
  ] as const) {
    context.setLineDash([...dash]);
    context.lineWidth = 1.2;
    context.beginPath();
    context.arc(here[0], here[1], metres * scale, 0, Math.PI * 2);
    context.stroke();
  }
  context.setLineDash([]);
}
