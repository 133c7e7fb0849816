import { bitmapOfMask } from '@stravel/core';
import { solidMask } from './new-mask';

describe('a new mask', () => {
  it('covers a rectangle with solid pixels, however it was drawn', () => {
    const mask = solidMask([10, 8], [-30, 3], 1.5, 8);
    expect([mask.position, mask.columns, mask.rows, Object.keys(mask.tiles)]).toEqual([
      [-30, 1.5, 3],
      320,
      40,
      ['0-0', '1-0'],
    ]);
    expect(bitmapOfMask(mask).open.some((one) => one === 1)).toBe(false);
  });

  it('is no larger than a mask can be, and no smaller than a pixel', () => {
    const mask = solidMask([0, 0], [100000, 0.001], 0, 1);
    expect([mask.columns, mask.rows]).toEqual([4096, 1]);
  });
});
