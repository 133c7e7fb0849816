import {
  HOLE,
  MAX_TILE_SIDE,
  squaresOfRow,
  toMicro,
  type Operation,
  type PlanPoint,
  type TileFloor,
} from '@stravel/core';
import { newId, setField } from '../../../../edits/operations';

/** A square of a floor. */
export interface SquareAt {
  readonly column: number;
  readonly row: number;
}

/** The square over which a point of the plan lies; undefined beside the floor. */
export function squareAt(
  { position, squareMetres, columns, rows }: TileFloor,
  [x, z]: PlanPoint,
): SquareAt | undefined {
  const [column, row] = [Math.floor((x - position[0]) / squareMetres), Math.floor((z - position[2]) / squareMetres)];
  return column >= 0 && row >= 0 && column < columns && row < rows ? { column, row } : undefined;
}

/** Squares under a line that was drawn, each once. */
export function squaresUnder(floor: TileFloor, points: readonly PlanPoint[]): SquareAt[] {
  const found = new Map<string, SquareAt>();
  points.forEach((point, i) => {
    const from = points[Math.max(0, i - 1)];
    const steps = Math.max(1, Math.ceil((Math.hypot(point[0] - from[0], point[1] - from[1]) / floor.squareMetres) * 2));
    for (let s = 0; s <= steps; s++) {
      const square = squareAt(floor, [
        from[0] + ((point[0] - from[0]) * s) / steps,
        from[1] + ((point[1] - from[1]) * s) / steps,
      ]);
      if (square) found.set(`${square.column} ${square.row}`, square);
    }
  });
  return [...found.values()];
}

/** All squares of the same text that hang together with one, side by side. */
export function filledFrom(floor: TileFloor, from: SquareAt): SquareAt[] {
  const grid = gridOf(floor);
  const wanted = grid[from.row][from.column];
  const found: SquareAt[] = [];
  const seen = new Set<number>();
  const waiting = [from];
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    const { column, row } = at;
    if (
      column < 0 ||
      row < 0 ||
      column >= floor.columns ||
      row >= floor.rows ||
      seen.has(row * floor.columns + column) ||
      grid[row][column] !== wanted
    )
      continue;
    seen.add(row * floor.columns + column);
    found.push(at);
    waiting.push(
      { column: column + 1, row },
      { column: column - 1, row },
      { column, row: row + 1 },
      { column, row: row - 1 },
    );
  }
  return found;
}

/** Sets squares to a text; only rows that change are written. */
export function setSquares(stratum: string, floor: TileFloor, squares: readonly SquareAt[], text: string): Operation[] {
  const rows = new Map<number, string[]>();
  for (const { column, row } of squares) {
    const cells = rows.get(row) ?? squaresOfRow(floor.squares[String(row)], floor.columns);
    cells[column] = text;
    rows.set(row, cells);
  }
  return [...rows].flatMap(([row, cells]) => {
    const operation = setField(stratum, 'tileFloor', floor, `squares.${row}`, cells.join(' '));
    return operation.before === operation.after ? [] : [operation];
  });
}

/** Gives a floor other squares altogether. */
export function setGrid(stratum: string, floor: TileFloor, rows: readonly (readonly string[])[]): Operation[] {
  const columns = Math.max(1, ...rows.map((row) => row.length));
  const squares = Object.fromEntries(rows.map((row, i) => [String(i), row.join(' ')]));
  return [
    setField(stratum, 'tileFloor', floor, 'columns', columns),
    setField(stratum, 'tileFloor', floor, 'rows', Math.max(1, rows.length)),
    setField(stratum, 'tileFloor', floor, 'squares', squares),
  ].filter(({ before, after }) => before !== after);
}

/** Puts an empty row or column before a place, or takes the one there away. @returns undefined when the floor would get too large or vanish */
export function changeLines(
  floor: TileFloor,
  what: 'row' | 'column',
  command: 'insert' | 'delete',
  at: number,
): string[][] | undefined {
  const grid = gridOf(floor);
  const length = what === 'row' ? floor.rows : floor.columns;
  if (command === 'insert' ? length >= MAX_TILE_SIDE : length <= 1) return undefined;
  if (what === 'row') {
    if (command === 'insert') grid.splice(at, 0, new Array<string>(floor.columns).fill(HOLE));
    else grid.splice(at, 1);
  } else for (const row of grid) row.splice(at, command === 'insert' ? 0 : 1, ...(command === 'insert' ? [HOLE] : []));
  return grid;
}

/** Squares as text, as they go to a spreadsheet: a line a row, tabs between squares. */
export function floorText(floor: TileFloor): string {
  return gridOf(floor)
    .map((row) => row.join('\t'))
    .join('\n');
}

/** A floor over a rectangle of the plan. @param fill text of all its squares */
export function newFloor(
  [x0, z0]: PlanPoint,
  [x1, z1]: PlanPoint,
  y: number,
  squareMetres: number,
  fill: string,
): TileFloor {
  const count = (a: number, b: number): number =>
    Math.min(MAX_TILE_SIDE, Math.max(1, Math.round(Math.abs(b - a) / squareMetres)));
  const [columns, rows] = [count(x0, x1), count(z0, z1)];
  const row = new Array<string>(columns).fill(fill).join(' ');
  return {
    id: newId(),
    name: 'tile floor',
    position: [toMicro(Math.min(x0, x1)), y, toMicro(Math.min(z0, z1))],
    squareMetres,
    columns,
    rows,
    squares: Object.fromEntries(Array.from({ length: rows }, (_unused, i) => [String(i), row])),
  };
}

export function gridOf({ squares, columns, rows }: TileFloor): string[][] {
  return Array.from({ length: rows }, (_unused, row) => squaresOfRow(squares[String(row)], columns));
}
