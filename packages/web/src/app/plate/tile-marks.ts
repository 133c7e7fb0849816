import {
  readSquare,
  squaresOfRow,
  type GroupColour,
  type Square,
  type SquareCode,
  type SquareMark,
  type TileFloor,
} from '@stravel/core';
import type { PlateColours } from './plate-colours';
import type { PlateDrawing } from './plate-drawing';

/** Squares smaller than this are drawn as one sheet, pixels. */
const MIN_SQUARE_PIXELS = 3;
/** Squares larger than this carry their mark. */
const MARK_PIXELS = 9;
const TEXT_PIXELS = 22;

/** The colour of a name of the palette in the plate's theme. */
function paletteColour(colour: GroupColour, colours: PlateColours): string {
  const table: Record<GroupColour, string> = {
    none: colours.floor,
    kiln: colours.kiln,
    brine: colours.brine,
    moss: colours.good,
    ochre: colours.near,
    madder: colours.over,
    slate: colours.softInk,
  };
  return table[colour];
}

/** A tile floor: squares in the colours and with the marks of the legend; hatched where one may not enter, nothing where there is none. */
export function drawFloor(drawing: PlateDrawing, floor: TileFloor, codes: ReadonlyMap<string, SquareCode>): void {
  const { context, colours, at } = drawing;
  const { position, squareMetres: side, columns, rows } = floor;
  const corner = (column: number, row: number): [number, number] | undefined =>
    at(position[0] + column * side, position[1], position[2] + row * side);
  const [first, across] = [corner(0, 0), corner(1, 0)];
  const alpha = context.globalAlpha;
  context.lineWidth = 1;
  if (!first || !across || Math.hypot(across[0] - first[0], across[1] - first[1]) < MIN_SQUARE_PIXELS) {
    sheet(
      context,
      [corner(0, 0), corner(columns, 0), corner(columns, rows), corner(0, rows)],
      colours.floor,
      colours.softInk,
      alpha,
    );
    return;
  }
  const pixels = Math.hypot(across[0] - first[0], across[1] - first[1]);
  const [firstColumn, lastColumn] = shownRange(
    drawing.view,
    first[0],
    across[0] - first[0],
    context.canvas.clientWidth,
    columns,
  );
  const [firstRow, lastRow] = shownRange(drawing.view, first[1], pixels, context.canvas.clientHeight, rows);
  // Most squares say the same as others: each text is read once.
  const read = new Map<string, Square | undefined>();
  for (let row = firstRow; row < lastRow; row++) {
    const cells = squaresOfRow(floor.squares[String(row)], columns);
    for (let column = firstColumn; column < lastColumn; column++) {
      if (!read.has(cells[column])) read.set(cells[column], readSquare(cells[column], codes).square);
      const square = read.get(cells[column]);
      const corners = [
        corner(column, row),
        corner(column + 1, row),
        corner(column + 1, row + 1),
        corner(column, row + 1),
      ];
      if (cells[column] === '.') continue;
      const code = square && codes.get(square.code);
      sheet(
        context,
        corners,
        code ? paletteColour(code.colour, colours) : colours.plate,
        colours.softInk,
        alpha * 0.45,
      );
      const [a, , c] = corners;
      if (!a || !c || pixels < MARK_PIXELS) continue;
      context.globalAlpha = alpha;
      context.strokeStyle = context.fillStyle = colours.ink;
      mark(
        context,
        code?.mayEnter === false ? 'hatch' : (code?.mark ?? 'none'),
        (a[0] + c[0]) / 2,
        (a[1] + c[1]) / 2,
        pixels * 0.3,
      );
      if (pixels >= TEXT_PIXELS && drawing.view === 'plan') {
        context.font = "10px 'Spline Sans Mono', monospace";
        context.fillText(cells[column], a[0] + 2, a[1] + 10);
      }
    }
  }
  context.globalAlpha = alpha;
}

/** Numbers of the squares of a line that lie in view; on the plan only, where squares are of one size. */
function shownRange(
  view: PlateDrawing['view'],
  start: number,
  pixels: number,
  within: number,
  count: number,
): [number, number] {
  if (view !== 'plan') return [0, count];
  return [Math.max(0, Math.floor(-start / pixels)), Math.min(count, Math.ceil((within - start) / pixels))];
}

function sheet(
  context: CanvasRenderingContext2D,
  corners: readonly ([number, number] | undefined)[],
  fill: string,
  line: string,
  alpha: number,
): void {
  context.beginPath();
  for (const [i, corner] of corners.entries()) {
    if (!corner) return;
    if (i === 0) context.moveTo(...corner);
    else context.lineTo(...corner);
  }
  context.closePath();
  context.globalAlpha = alpha;
  context.fillStyle = fill;
  context.fill();
  context.strokeStyle = line;
  context.stroke();
}

function mark(context: CanvasRenderingContext2D, kind: SquareMark | 'hatch', x: number, y: number, r: number): void {
  context.beginPath();
  if (kind === 'dot') context.arc(x, y, r * 0.5, 0, Math.PI * 2);
  else if (kind === 'ring') context.arc(x, y, r, 0, Math.PI * 2);
  else if (kind === 'bar') lines(context, [x - r, y, x + r, y]);
  else if (kind === 'cross') lines(context, [x - r, y, x + r, y], [x, y - r, x, y + r]);
  else if (kind === 'corner') lines(context, [x - r, y + r, x - r, y - r], [x - r, y - r, x + r, y - r]);
  else if (kind === 'hatch') lines(context, [x - r, y + r, x + r, y - r], [x - r, y, x, y - r], [x, y + r, x + r, y]);
  if (kind === 'dot') context.fill();
  else context.stroke();
}

function lines(
  context: CanvasRenderingContext2D,
  ...all: readonly (readonly [number, number, number, number])[]
): void {
  for (const [x0, y0, x1, y1] of all) {
    context.moveTo(x0, y0);
    context.lineTo(x1, y1);
  }
}
