import fc from 'fast-check';
import { BoxTree } from './box-tree';

const number = fc.double({ min: -50, max: 50, noNaN: true });
const boxes = fc.array(
  fc.tuple(number, number, number, fc.double({ min: 0, max: 9, noNaN: true }), fc.double({ min: 0, max: 9, noNaN: true }), fc.double({ min: 0, max: 9, noNaN: true })),
  { maxLength: 80 },
);
const flat = (list: readonly (readonly number[])[]): Float64Array => Float64Array.from(list.flatMap(([x, y, z, a, b, c]) => [x, y, z, x + a, y + b, z + c]));

describe('BoxTree', () => {
  it('finds the same boxes as looking at each', () => {
    fc.assert(
      fc.property(boxes, fc.tuple(number, number, number), (list, at) => {
        const data = flat(list);
        const max = at.map((v) => v + 12);
        const expected = list.flatMap((_box, i) => ([0, 1, 2].every((k) => data[i * 6 + k] <= max[k] && data[i * 6 + 3 + k] >= at[k]) ? [i] : []));
        expect(new BoxTree(data).inBox(at, max)).toEqual(expected);
      }),
    );
  });

  it('gives what a ray enters, nearest first', () => {
    const tree = new BoxTree(
      flat([
        [5, -1, -1, 2, 2, 2],
        [1, -1, -1, 1, 2, 2],
        [3, 4, -1, 1, 1, 1],
      ]),
    );
    expect(tree.alongRay([0, 0, 0], [1, 0, 0])).toEqual([
      { item: 1, distance: 1 },
      { item: 0, distance: 5 },
    ]);
    expect(tree.alongRay([0, 0, 0], [-1, 0, 0])).toEqual([]);
  });

  it('takes no boxes, and names a NaN', () => {
    expect(new BoxTree(new Float64Array(0)).inBox([0, 0, 0], [1, 1, 1])).toEqual([]);
    expect(() => new BoxTree(Float64Array.of(0, 0, NaN, 1, 1, 1))).toThrow(/boxes\[2\] is NaN/);
    expect(() => new BoxTree(new Float64Array(5))).toThrow(/multiple of 6, is 5/);
  });
});
