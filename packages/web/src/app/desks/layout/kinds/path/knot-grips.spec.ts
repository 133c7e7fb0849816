import type { Path } from '@stravel/core';
import { knotGrips } from './knot-grips';

const path = (form: Path['form']): Path => ({
  id: 'p',
  name: '',
  form,
  closed: false,
  knots: [
    { id: 'k1', position: [0, 0, 0], widthMetres: 1, tags: [], handle: null },
    { id: 'k2', position: [6, 0, 0], widthMetres: 1, tags: [], handle: [1, 0, 2] },
  ],
});

describe('what a path is drawn by', () => {
  it('are the knots of a straight one', () => {
    expect(knotGrips(path('polyline')).map(({ end, at }) => [end, at])).toEqual([
      [0, [0, 0]],
      [0, [6, 0]],
    ]);
  });

  it('are the knots of a smooth one with both ends of their handles', () => {
    expect(knotGrips(path('curve')).map(({ index, end, at }) => [index, end, at])).toEqual([
      [0, 0, [0, 0]],
      [0, 1, [1, 0]],
      [0, -1, [-1, 0]],
      [1, 0, [6, 0]],
      [1, 1, [7, 2]],
      [1, -1, [5, -2]],
    ]);
  });
});
