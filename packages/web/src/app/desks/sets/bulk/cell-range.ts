import { readClipboardRows, writeClipboardRows, type CellText, type FilledRecord } from '@stravel/core';
import type { ActiveCell } from '../store/sets-store';
import type { TableColumn, TableRow } from '../table-rows';

/** A rectangle of cells: lines and columns from, up to and with. */
export interface CellRange {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

/** The rectangle between two cells; undefined when one of them is not shown. */
export function rangeBetween(
  rows: readonly TableRow[],
  columns: readonly TableColumn[],
  one: ActiveCell,
  other: ActiveCell,
): CellRange | undefined {
  const [a, b] = [one, other].map(({ row, column }) => [
    rows.findIndex(({ id }) => id === row),
    columns.findIndex(({ id }) => id === column),
  ]);
  if (a[0] < 0 || b[0] < 0 || a[1] < 0 || b[1] < 0) return undefined;
  return {
    top: Math.min(a[0], b[0]),
    bottom: Math.max(a[0], b[0]),
    left: Math.min(a[1], b[1]),
    right: Math.max(a[1], b[1]),
  };
}

/** Records of a range; lines that are sets are passed over. */
function recordsOf(rows: readonly TableRow[], { top, bottom }: CellRange): FilledRecord[] {
  return rows.slice(top, bottom + 1).flatMap((row) => (row.kind === 'record' ? [row.record] : []));
}

/** A range as a spreadsheet takes it. */
export function copyRange(
  rows: readonly TableRow[],
  columns: readonly TableColumn[],
  range: CellRange,
  text: (record: FilledRecord, column: TableColumn) => string,
): string {
  return writeClipboardRows(
    recordsOf(rows, range).map((record) =>
      columns.slice(range.left, range.right + 1).map((column) => text(record, column)),
    ),
  );
}

/** What was pasted: the cells that it is written into, and how many cells had no place. */
export interface PastedCells {
  readonly texts: readonly CellText[];
  readonly beyond: number;
}

/**
 * Lays what was pasted over the table from a range's first cell on. A single value fills the whole range. Lines that are
 * sets are passed over; what reaches beyond the table is counted.
 */
export function pasteInto(
  rows: readonly TableRow[],
  columns: readonly TableColumn[],
  range: CellRange,
  pasted: string,
): PastedCells {
  const block = readClipboardRows(pasted);
  if (block.length === 1 && block[0].length === 1) {
    const texts = recordsOf(rows, range).flatMap((record) =>
      columns.slice(range.left, range.right + 1).map((column): CellText => ({ record, column, text: block[0][0] })),
    );
    return { texts, beyond: 0 };
  }
  const records = recordsOf(rows, { ...range, bottom: rows.length - 1 });
  let beyond = 0;
  const texts = block.flatMap((line, i) =>
    line.flatMap((text, c): CellText[] => {
      const [record, column] = [records.at(i), columns.at(range.left + c)];
      if (record && column) return [{ record, column, text }];
      beyond++;
      return [];
    }),
  );
  return { texts, beyond };
}

/** Writes what stands in the first line of a range into all lines below. */
export function fillDown(
  rows: readonly TableRow[],
  columns: readonly TableColumn[],
  range: CellRange,
  text: (record: FilledRecord, column: TableColumn) => string,
): CellText[] {
  const [first, ...rest] = recordsOf(rows, range);
  if (!first) return [];
  return rest.flatMap((record) =>
    columns
      .slice(range.left, range.right + 1)
      .map((column): CellText => ({ record, column, text: text(first, column) })),
  );
}
