import type { Operation, TileFloor } from '@stravel/core';
import { StratumDocument } from '../../../../document/stratum-document';
import {
  changeLines,
  filledFrom,
  floorText,
  gridOf,
  newFloor,
  setGrid,
  setSquares,
  squareAt,
  squaresUnder,
} from './tile-edits';

const floor: TileFloor = {
  id: 'f',
  name: '',
  position: [10, 0, 20],
  squareMetres: 2,
  columns: 3,
  rows: 2,
  squares: { '0': 'a a b', '1': 'a b .' },
};
const after = (operations: readonly Operation[]): TileFloor => {
  const document = new StratumDocument('s');
  document.apply([
    { document: 's', kind: 'tileFloor', id: 'f', field: null, before: null, after: floor as never },
    ...operations,
  ]);
  return document.tables.tileFloor.get('f') as TileFloor;
};

describe('tile floors', () => {
  it('know the square under a point, and those under a line', () => {
    expect([
      squareAt(floor, [10, 20]),
      squareAt(floor, [15.9, 23.9]),
      squareAt(floor, [16, 20]),
      squareAt(floor, [9.9, 20]),
    ]).toEqual([{ column: 0, row: 0 }, { column: 2, row: 1 }, undefined, undefined]);
    expect(
      squaresUnder(floor, [
        [10.5, 21],
        [15.5, 21],
      ]).map(({ column }) => column),
    ).toEqual([0, 1, 2]);
  });

  it('are painted and filled; only rows that change are written', () => {
    const painted = setSquares('s', floor, [{ column: 1, row: 0 }], 'c^2');
    expect(painted).toHaveLength(1);
    expect(after(painted).squares['0']).toBe('a c^2 b');
    expect(setSquares('s', floor, [{ column: 0, row: 0 }], 'a')).toEqual([]);
    expect(filledFrom(floor, { column: 0, row: 0 })).toHaveLength(3);
  });

  it('get and lose rows and columns, but never the last one', () => {
    expect(changeLines(floor, 'column', 'insert', 1)).toEqual([
      ['a', '.', 'a', 'b'],
      ['a', '.', 'b', '.'],
    ]);
    expect(changeLines(floor, 'row', 'delete', 0)).toEqual([['a', 'b', '.']]);
    expect(changeLines({ ...floor, rows: 1 }, 'row', 'delete', 0)).toBeUndefined();
    expect(changeLines({ ...floor, rows: 500 }, 'row', 'insert', 0)).toBeUndefined();
  });

  it('go out as text and come back as they were', () => {
    expect(floorText(floor)).toBe('a\ta\tb\na\tb\t.');
    const made = after(setGrid('s', floor, [['x'], ['y']]));
    expect([made.columns, made.rows, gridOf(made)]).toEqual([1, 2, [['x'], ['y']]]);
  });

  it('are made over a dragged rectangle, whichever way it was dragged', () => {
    expect(newFloor([5, 8], [1, 2], 3, 2, 'a')).toMatchObject({
      position: [1, 3, 2],
      columns: 2,
      rows: 3,
      squares: { '0': 'a a', '2': 'a a' },
    });
  });
});
