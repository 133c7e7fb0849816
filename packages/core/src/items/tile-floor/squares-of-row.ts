/** No square: a hole. */
export const HOLE = '.';

/** Squares of a row as they are kept, `columns` of them. */
export function squaresOfRow(text: string | undefined, columns: number): string[] {
  const cells = text === undefined || text === '' ? [] : text.split(' ');
  return Array.from({ length: columns }, (_unused, i) => cells[i] ?? HOLE);
}
