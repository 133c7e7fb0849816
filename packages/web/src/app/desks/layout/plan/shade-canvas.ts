import type { PlateDrawing } from '../../../plate/plate-drawing';

/** Red, green, blue and how strong, 0 to 255 each. */
export type Shade = readonly [number, number, number, number];

/** A picture of cells, one pixel each. @param shadeOf undefined leaves a cell clear */
export function shadeCanvas(
  columns: number,
  rows: number,
  shadeOf: (cell: number) => Shade | undefined,
): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [columns, rows];
  const context = canvas.getContext('2d') as CanvasRenderingContext2D;
  const picture = context.createImageData(columns, rows);
  for (let cell = 0; cell < columns * rows; cell++) {
    const shade = shadeOf(cell);
    if (shade) picture.data.set(shade, cell * 4);
  }
  context.putImageData(picture, 0, 0);
  return canvas;
}

/** Red, green and blue of a colour of the theme. */
export function channelsOf(colour: string): readonly [number, number, number] {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [1, 1];
  const context = canvas.getContext('2d') as CanvasRenderingContext2D;
  context.fillStyle = colour;
  context.fillRect(0, 0, 1, 1);
  const [red, green, blue] = context.getImageData(0, 0, 1, 1).data;
  return [red, green, blue];
}

/** Lays a picture of cells over the plan. @param low, high corners, metres */
export function layShade(
  { context, at }: PlateDrawing,
  canvas: HTMLCanvasElement,
  low: readonly [number, number],
  high: readonly [number, number],
  isSmooth: boolean,
): void {
  const [from, to] = [at(low[0], 0, low[1]), at(high[0], 0, high[1])];
  if (!from || !to) return;
  context.imageSmoothingEnabled = isSmooth;
  context.drawImage(canvas, from[0], from[1], to[0] - from[0], to[1] - from[1]);
}
