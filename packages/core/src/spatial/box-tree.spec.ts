import fc from 'fast-check';
import { randomStream } from '../random/random-stream';
import { BoxTree } from './box-tree';

const number = fc.double({ min: -50, max: 50, noNaN: true });
const boxes = fc.array(
  fc.tuple(
    number,
    number,
    number,
    fc.double({ min: 0, max: 9, noNaN: true }),
    fc.double({ min: 0, max: 9, noNaN: true }),
    fc.double({ min: 0, max: 9, noNaN: true }),
  ),
  { maxLength: 80 },
);
const flat = (list: readonly (readonly number[])[]): Float64Array =>
  Float64Array.from(list.flatMap(([x, y, z, a, b, c]) => [x, y, z, x + a, y + b, z + c]));

describe('BoxTree', () => {
  it('finds the same boxes as looking at each', () => {
    fc.assert(
      fc.property(boxes, fc.tuple(number, number, number), (list, at) => {
        const data = flat(list);
        const max = at.map((v) => v + 12);
        const expected = list.flatMap((_box, i) =>
          [0, 1, 2].every((k) => data[i * 6 + k] <= max[k] && data[i * 6 + 3 + k] >= at[k]) ? [i] : [],
        );
        expect(new BoxTree(data).inBox(at, max).sort((a, b) => a - b)).toEqual(expected);
      }),
    );
  });

  it('is the same tree when it is built in steps, with a pause now and then', () => {
    const random = randomStream('steps');
    const data = flat(
      Array.from({ length: 30000 }, () => [0, 1, 2].map(() => random.between(-500, 500)).concat([1, 2, 3])),
    );
    const steps = BoxTree.inSteps(data);
    let pauses = 0;
    let step = steps.next();
    for (; step.done !== true; step = steps.next()) pauses++;
    expect(pauses).toBeGreaterThan(8);
    expect(step.value).toEqual(new BoxTree(data));
    expect(() => BoxTree.inSteps(Float64Array.of(0, 0, NaN, 1, 1, 1)).next()).toThrow('boxes[2] is NaN');
  });

  it('finds the same in large numbers, over all its levels, and along rays', () => {
    const random = randomStream('box tree');
    const data = Float64Array.from({ length: 5000 * 6 }, (_unused, i) => (i % 6 < 3 ? random.between(-80, 80) : 0));
    for (let i = 0; i < data.length; i += 6)
      for (let k = 0; k < 3; k++) data[i + 3 + k] = data[i + k] + random.between(0, 4);
    const tree = new BoxTree(data);
    for (const [min, max] of [
      [
        [-10, -90, -10],
        [30, 90, 30],
      ],
      [
        [-90, -90, -90],
        [90, 90, 90],
      ],
      [
        [-80, -Infinity, 0],
        [-79, 0, 1],
      ],
    ] as const) {
      const expected = Array.from({ length: 5000 }, (_unused, i) => i).filter((i) =>
        [0, 1, 2].every((k) => data[i * 6 + k] <= max[k] && data[i * 6 + 3 + k] >= min[k]),
      );
      expect(tree.inBox(min, max).sort((a, b) => a - b)).toEqual(expected);
    }
    const down = tree.alongRay([3, 200, 5], [0, -1, 0]).map(({ item }) => item);
    expect(down.sort((a, b) => a - b)).toEqual(tree.inBox([3, -90, 5], [3, 90, 5]).sort((a, b) => a - b));
    expect(down.length).toBeGreaterThan(0);
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
