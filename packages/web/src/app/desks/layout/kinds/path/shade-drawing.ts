import type { PlateDrawing } from '../../../../plate/plate-drawing';
import { channelsOf, layShade, shadeCanvas } from '../../plan/shade-canvas';
import type { ShownShade } from './paths-desk';

const shades = new WeakMap<ShownShade, HTMLCanvasElement>();
/** How strongly the farthest place is shaded, 0 to 255. */
const MAX_ALPHA = 170;
/** Bands from near to far. */
const BANDS = 8;
/** Height at which the words stand over the foot of the plan. */
const FOOT_PIXELS = 36;

/** Shades the plan the darker, the farther it is from a path, in bands; says how far the last one is. */
export function drawDistanceShade(drawing: PlateDrawing, shown: ShownShade): void {
  const { context, colours, view } = drawing;
  if (view !== 'plan') return;
  const { columns, rows, cellMetres, origin, metres, mostMetres } = shown.shade;
  let canvas = shades.get(shown);
  if (!canvas) {
    const [red, green, blue] = channelsOf(colours.costHigh);
    canvas = shadeCanvas(columns, rows, (cell) => [
      red,
      green,
      blue,
      Math.round((MAX_ALPHA * Math.min(BANDS - 1, Math.floor((metres[cell] / mostMetres) * BANDS))) / (BANDS - 1)),
    ]);
    shades.set(shown, canvas);
  }
  const high = [origin[0] + columns * cellMetres, origin[1] + rows * cellMetres] as const;
  layShade(drawing, canvas, origin, high, false);
  const text = `Distance from ${shown.path.name || 'the path'}: a band is ${(mostMetres / BANDS).toFixed(1)} m, the farthest ${mostMetres.toFixed(1)} m`;
  context.font = "11.5px 'Spline Sans', sans-serif";
  const foot = context.canvas.clientHeight - FOOT_PIXELS;
  context.fillStyle = colours.plate;
  context.fillRect(10, foot - 14, context.measureText(text).width + 12, 20);
  context.fillStyle = colours.ink;
  context.fillText(text, 16, foot);
}
