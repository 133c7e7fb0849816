import { OPEN } from './carve-burrow';

/** A rectangle of squares. */
export interface SquareRectangle {
  readonly column: number;
  readonly row: number;
  readonly columns: number;
  readonly rows: number;
}

const NEEDED = 1;
const FREE_TO_TAKE = 2;

/**
 * Covers every solid square that touches an open one, corners included, by few large rectangles of solid squares; none
 * overlap. Solid squares that touch nothing may be taken along where that makes a rectangle larger.
 * Order: by the first needed square, row by row. Of growing right then down and down then right the one with more needed squares wins.
 * @param squares SOLID or OPEN, row by row; the outermost squares must be solid
 */
export function wallRectangles(
  squares: Uint8Array,
  columns: number,
  rows: number,
  check: () => void,
): SquareRectangle[] {
  const marks = markWalls(squares, columns, rows);
  const found: SquareRectangle[] = [];
  for (let row = 0; row < rows; row++) {
    if (row % 64 === 0) check();
    for (let column = 0; column < columns; column++) {
      if (marks[row * columns + column] !== NEEDED) continue;
      const wide = grow(marks, columns, rows, column, row, true);
      const tall = grow(marks, columns, rows, column, row, false);
      const best = tall.needed > wide.needed ? tall : wide;
      for (let r = row; r < row + best.rows; r++)
        marks.fill(0, r * columns + column, r * columns + column + best.columns);
      found.push({ column, row, columns: best.columns, rows: best.rows });
    }
  }
  return found;
}

function markWalls(squares: Uint8Array, columns: number, rows: number): Uint8Array {
  const marks = new Uint8Array(squares.length);
  // Whether a square or one beside it in its row is open; then the same over rows.
  const open = new Uint8Array(squares.length);
  for (let i = 1; i < squares.length - 1; i++)
    open[i] = squares[i - 1] === OPEN || squares[i] === OPEN || squares[i + 1] === OPEN ? 1 : 0;
  for (let row = 0; row < rows; row++) {
    for (let at = row * columns, end = at + columns; at < end; at++) {
      if (squares[at] === OPEN) continue;
      const touches = open[at] + (row > 0 ? open[at - columns] : 0) + (row < rows - 1 ? open[at + columns] : 0);
      marks[at] = touches > 0 ? NEEDED : FREE_TO_TAKE;
    }
  }
  return marks;
}

/** The largest rectangle from a corner that grows one way as far as it can, then the other; trimmed to what is needed. */
function grow(
  marks: Uint8Array,
  columns: number,
  rows: number,
  column: number,
  row: number,
  rightFirst: boolean,
): { columns: number; rows: number; needed: number } {
  const lineIsFree = (along: number, wide: number): boolean => {
    for (let k = 0; k < wide; k++) {
      const at = rightFirst ? (row + along) * columns + column + k : (row + k) * columns + column + along;
      if (marks[at] === 0) return false;
    }
    return true;
  };
  const firstLimit = rightFirst ? columns - column : rows - row;
  const secondLimit = rightFirst ? rows - row : columns - column;
  const step = rightFirst ? 1 : columns;
  let wide = 1;
  let lastNeeded = 1;
  while (wide < firstLimit && marks[row * columns + column + wide * step] !== 0) {
    wide++;
    if (marks[row * columns + column + (wide - 1) * step] === NEEDED) lastNeeded = wide;
  }
  wide = lastNeeded;
  let deep = 1;
  let lastDeep = 1;
  let needed = 0;
  let neededHere = countNeeded(marks, row * columns + column, step, wide);
  needed = neededHere;
  const across = rightFirst ? columns : 1;
  while (deep < secondLimit && lineIsFree(deep, wide)) {
    neededHere = countNeeded(marks, row * columns + column + deep * across, step, wide);
    deep++;
    if (neededHere > 0) {
      lastDeep = deep;
      needed += neededHere;
    }
  }
  return rightFirst ? { columns: wide, rows: lastDeep, needed } : { columns: lastDeep, rows: wide, needed };
}

function countNeeded(marks: Uint8Array, start: number, step: number, length: number): number {
  let count = 0;
  for (let k = 0; k < length; k++) if (marks[start + k * step] === NEEDED) count++;
  return count;
}
