import type { WallPin } from '../../model/pin';
import type { BurrowRecipe } from '../../model/recipe';
import { OPEN, SOLID, type Cave } from './carve-burrow';

/** Rounding that a wall moved by hand may carry; squares. */
const TOUCH_SQUARES = 1e-9;

/** The squares of a burrow after its pins were held open. */
export interface PinnedSquares {
  readonly columns: number;
  readonly rows: number;
  /** SOLID or OPEN, row by row. */
  readonly squares: Uint8Array;
  /** Squares added on each side, so that a pinned wall of the outermost squares is walled off anew too. */
  readonly margin: 0 | 1;
}

/** Holds the squares of pins open. A pin's squares beyond the burrow, left from when it was larger, stay as they are. */
export function openPinned({ squares, columns, rows }: Cave, pins: readonly WallPin[]): PinnedSquares {
  const touchesRim = pins.some(
    (pin) => pin.column <= 0 || pin.row <= 0 || pin.column + pin.columns >= columns || pin.row + pin.rows >= rows,
  );
  const margin = touchesRim ? 1 : 0;
  const wide = columns + 2 * margin;
  const held = new Uint8Array(wide * (rows + 2 * margin)).fill(SOLID);
  for (let row = 0; row < rows; row++)
    held.set(squares.subarray(row * columns, (row + 1) * columns), (row + margin) * wide + margin);
  for (const pin of pins) {
    const [from, to] = [Math.max(0, pin.column), Math.min(columns, pin.column + pin.columns)];
    for (let row = Math.max(0, pin.row); row < Math.min(rows, pin.row + pin.rows) && from < to; row++) {
      held.fill(OPEN, (row + margin) * wide + margin + from, (row + margin) * wide + margin + to);
    }
  }
  return { columns: wide, rows: rows + 2 * margin, squares: held, margin };
}

export const CLEAR = 0;
/** A pinned wall reaches into the square and leaves its middle free. */
export const TOUCHED = 1;
/** A pinned wall covers the middle, so that no step ends there. */
export const BLOCKED = 2;

/** CLEAR, TOUCHED or BLOCKED for each square, by the walls of pins where they stand now and between floor and ceiling. */
export function squaresUnderPins(
  { columns, rows, margin }: PinnedSquares,
  recipe: BurrowRecipe,
  pins: readonly WallPin[],
): Uint8Array {
  const under = new Uint8Array(columns * rows);
  const { squareMetres, heightMetres } = recipe;
  for (const { hidden, offset, ...pin } of pins) {
    if (hidden || Math.abs(offset[1]) >= heightMetres) continue;
    const west = pin.column + margin + offset[0] / squareMetres;
    const north = pin.row + margin + offset[2] / squareMetres;
    const [east, south] = [west + pin.columns, north + pin.rows];
    for (let row = Math.max(0, Math.floor(north + TOUCH_SQUARES)); row < Math.min(rows, south - TOUCH_SQUARES); row++) {
      for (
        let column = Math.max(0, Math.floor(west + TOUCH_SQUARES));
        column < Math.min(columns, east - TOUCH_SQUARES);
        column++
      ) {
        const isMiddle =
          Math.abs(column + 0.5 - (west + east) / 2) <= pin.columns / 2 + TOUCH_SQUARES &&
          Math.abs(row + 0.5 - (north + south) / 2) <= pin.rows / 2 + TOUCH_SQUARES;
        const at = row * columns + column;
        under[at] = Math.max(under[at], isMiddle ? BLOCKED : TOUCHED);
      }
    }
  }
  return under;
}
