import { HOLE } from '../../items/tile-floor/squares-of-row';
import { MAX_TILE_SIDE, type SquareCode } from '../../model/tile-floor';

/** One square as its text says; undefined modifiers are as the legend has them. */
export interface Square {
  readonly code: string;
  readonly height: number | undefined;
  readonly visits: number | undefined;
  /** Squares with the same label are linked. */
  readonly label: string | undefined;
}

/**
 * Code, then in this order what is otherwise than in the legend: ^height in steps, *visits, @label of a link.
 * 'f' · 'f^2' · 'f*1' · 'f^-1*3@b'
 */
const SQUARE = /^([A-Za-z][A-Za-z0-9]{0,7})(?:\^(-?\d{1,3}))?(?:\*(\d{1,3}))?(?:@([A-Za-z0-9]{1,8}))?$/;

/** Reads one square. @returns undefined for a hole, or what is wrong */
export function readSquare(
  text: string,
  legend: ReadonlyMap<string, SquareCode>,
):
  | { readonly square: Square | undefined; readonly fault?: undefined }
  | { readonly square?: undefined; readonly fault: string } {
  if (text === HOLE || text === '') return { square: undefined };
  const match = SQUARE.exec(text);
  if (!match) return { fault: `“${text}” is not a square; write a code of the legend, then ^height, *visits, @link` };
  const [, code, height, visits, label] = match as unknown as [
    string,
    string,
    string | undefined,
    string | undefined,
    string | undefined,
  ];
  if (!legend.has(code))
    return {
      fault:
        legend.size === 0
          ? `“${code}” is not in the legend, which is empty`
          : `“${code}” is not in the legend (${[...legend.keys()].slice(0, 8).join(', ')})`,
    };
  return {
    square: {
      code,
      height: height === undefined ? undefined : Number(height),
      visits: visits === undefined ? undefined : Number(visits),
      label,
    },
  };
}

/** What is wrong with one square of a block of text; row and column from 1. */
export interface SquareFault {
  readonly row: number;
  readonly column: number;
  readonly message: string;
}

/** A block of squares read from text. */
export interface ReadSquares {
  /** One text a square; short rows are filled with holes. */
  readonly rows: readonly (readonly string[])[];
  readonly columns: number;
  readonly faults: readonly SquareFault[];
}

/** Most faults that are told. */
const MAX_FAULTS = 200;

/**
 * Reads squares as a spreadsheet gives them: a line a row, tabs (or blanks, where there is no tab) between squares. What
 * is refused becomes a hole and is told with its row and column.
 */
export function readSquares(text: string, legend: readonly SquareCode[]): ReadSquares {
  const codes = new Map(legend.map((code) => [code.code, code]));
  const lines = text.replace(/\r\n?/g, '\n').replace(/\n+$/, '').split('\n');
  const isTabbed = text.includes('\t');
  const faults: SquareFault[] = [];
  const told = (row: number, column: number, message: string): void =>
    void (faults.length < MAX_FAULTS && faults.push({ row, column, message }));
  if (lines.length > MAX_TILE_SIDE)
    told(
      MAX_TILE_SIDE + 1,
      1,
      `a floor has at most ${MAX_TILE_SIDE} rows, this has ${lines.length}; the rest is left out`,
    );
  const cells = lines
    .slice(0, MAX_TILE_SIDE)
    .map((line) => (isTabbed ? line.split('\t') : line.trim().split(/\s+/)).map((cell) => cell.trim()));
  const widest = Math.max(1, ...cells.map((row) => row.length));
  if (widest > MAX_TILE_SIDE)
    told(
      1,
      MAX_TILE_SIDE + 1,
      `a floor has at most ${MAX_TILE_SIDE} columns, this has ${widest}; the rest is left out`,
    );
  const columns = Math.min(widest, MAX_TILE_SIDE);
  const rows = cells.map((row, r) =>
    Array.from({ length: columns }, (_unused, c) => {
      const cell = row[c] ?? HOLE;
      const { fault } = readSquare(cell, codes);
      if (fault !== undefined) {
        told(r + 1, c + 1, fault);
        return HOLE;
      }
      return cell === '' ? HOLE : cell;
    }),
  );
  return { rows, columns, faults };
}
