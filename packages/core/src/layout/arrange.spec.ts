import fc from 'fast-check';
import { blockSurface, boxPlanes, wedgePlanes } from '../geometry/block-solid';
import { placePoint, turnMatrix } from '../geometry/turn';
import type { Block } from '../model/block';
import type { Box3, Vector3 } from '../model/vector';
import { numberOfSum } from '../numeric/sum-text';
import { alignSteps, arrayOffsets, distributeSteps, varied } from './arrange';
import { anchorOf, mirroredFields, movedFields, movedWithin, turnedFields } from './place-items';
import type { AnyItem } from '../items/item-spec';

const box = (low: number, high: number): Box3 => ({ min: [low, 0, 0], max: [high, 1, 1] });
const block = (over: Partial<Block> = {}): Block => ({
  id: 'b',
  name: 'b',
  position: [3, 0, 1],
  turn: [30, 20, 10],
  planes: wedgePlanes([2, 3, 4]),
  sight: 'hides',
  material: 'brick',
  ...over,
});
const path: AnyItem = {
  kind: 'path',
  item: {
    id: 'p',
    name: 'p',
    form: 'curve',
    closed: false,
    knots: [
      { id: 'a', position: [0, 0, 0], widthMetres: 2, tags: [], handle: [1, 0, 0] },
      { id: 'b', position: [10, 0, 0], widthMetres: 2, tags: ['bend'], handle: null },
    ],
  },
};

describe('sums in number fields', () => {
  it.each<[string, number | undefined]>([
    ['12.5+3', 15.5],
    [' 7 / 2 ', 3.5],
    ['(2+4)*0,5', 3],
    ['-3', -3],
    ['2--3', 5],
    ['2×3÷4', 1.5],
    ['1−4', -3],
    ['', undefined],
    ['12+', undefined],
    ['(2', undefined],
    ['2)', undefined],
    ['1/0', undefined],
    ['1e3', undefined],
    ['three', undefined],
    ['2 3', undefined],
  ])('%j is %p', (text, value) => {
    expect(numberOfSum(text)).toBe(value);
  });
});

describe('arranging', () => {
  it('aligns sides and middles', () => {
    const boxes = [box(0, 2), box(5, 6), box(-1, 9)];
    expect(alignSteps(boxes, 0, 'low')).toEqual([-1, -6, 0]);
    expect(alignSteps(boxes, 0, 'high')).toEqual([7, 3, 0]);
    expect(alignSteps(boxes, 0, 'middle')).toEqual([3, -1.5, 0]);
    expect(alignSteps([], 0, 'low')).toEqual([]);
  });

  it('distributes with equal gaps, whatever the order and the sizes', () => {
    // 0–2, then 1 of length 1, then 8–10: room 6 − 1 = 5, gaps of 2.5.
    expect(distributeSteps([box(8, 10), box(3, 4), box(0, 2)], 0)).toEqual([0, 1.5, 0]);
    expect(distributeSteps([box(0, 1), box(5, 6)], 0)).toEqual([0, 0]);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: 1, max: 9 })), {
          minLength: 3,
          maxLength: 12,
        }),
        (sketches) => {
          const boxes = sketches.map(([low, length]) => box(low, low + length));
          const steps = distributeSteps(boxes, 0);
          const order = boxes
            .map((_box, i) => i)
            .sort((a, b) => boxes[a].min[0] + boxes[a].max[0] - boxes[b].min[0] - boxes[b].max[0] || a - b);
          const gaps = order
            .slice(1)
            .map((i, n) => boxes[i].min[0] + steps[i] - boxes[order[n]].max[0] - steps[order[n]]);
          for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0], 4);
        },
      ),
    );
  });

  it('makes arrays by step, by length and by spacing', () => {
    expect(arrayOffsets({ by: 'step', copies: 2, step: [1, 0, 2] })).toEqual([
      [1, 0, 2],
      [2, 0, 4],
    ]);
    expect(arrayOffsets({ by: 'length', copies: 4, to: [0, 0, 8] }).map(([, , z]) => z)).toEqual([2, 4, 6, 8]);
    expect(arrayOffsets({ by: 'spacing', spacingMetres: 3, to: [10, 0, 0] }).map(([x]) => x)).toEqual([3, 6, 9]);
    expect(() => arrayOffsets({ by: 'spacing', spacingMetres: 0.0001, to: [1e4, 0, 0] })).toThrow(
      expect.objectContaining({ code: 'ARRAY_SIZE' }) as Error,
    );
    expect(() => arrayOffsets({ by: 'step', copies: 0, step: [1, 0, 0] })).toThrow(
      expect.objectContaining({ code: 'ARRAY_SIZE' }) as Error,
    );
  });

  it('varies within bounds, the same for the same seed', () => {
    const request = { turnDegrees: 20, scaleShare: 0.2, offsetMetres: 0.5 };
    const all = varied(200, request, 'kiln');
    expect(varied(200, request, 'kiln')).toEqual(all);
    expect(varied(200, request, 'lehr')).not.toEqual(all);
    for (const { turnDegrees, scale, offset } of all) {
      expect(Math.abs(turnDegrees)).toBeLessThanOrEqual(20);
      expect(Math.abs(scale - 1)).toBeLessThanOrEqual(0.2);
      expect(Math.max(...offset.map(Math.abs))).toBeLessThanOrEqual(0.5);
    }
    expect(Math.max(...all.map(({ turnDegrees }) => turnDegrees))).toBeGreaterThan(15);
  });
});

describe('placing', () => {
  const corners = (one: Block): Vector3[] =>
    blockSurface(one).faces.flatMap((face) =>
      Array.from({ length: face.length / 3 }, (_unused, i): Vector3 => [face[i * 3], face[i * 3 + 1], face[i * 3 + 2]]),
    );
  const sorted = (points: readonly Vector3[]): string[] =>
    [...new Set(points.map((p) => p.map((value) => (Math.round(value * 1e4) / 1e4 + 0).toFixed(4)).join()))].sort();

  it.each(['x', 'z'] as const)('mirrors a turned block across %s as its corners are mirrored', (axis) => {
    const k = axis === 'x' ? 0 : 2;
    const before = block();
    const after = { ...before, ...mirroredFields({ kind: 'block', item: before }, axis, 5) } as Block;
    expect(sorted(corners(after))).toEqual(
      sorted(corners(before).map((p) => p.map((value, i) => (i === k ? 10 - value : value)) as unknown as Vector3)),
    );
  });

  it('mirrored twice is as before; turned there and back too', () => {
    const items: AnyItem[] = [
      { kind: 'block', item: block() },
      path,
      { kind: 'divider', item: { id: 'd', from: [0, 1], to: [2, 3], bottom: 0, top: 3 } },
      { kind: 'marker', item: { id: 'm', kind: 'spawn', position: [1, 2, 3], turn: 40 } },
      {
        kind: 'volume',
        item: {
          id: 'v',
          name: '',
          kind: '',
          position: [1, 0, 2],
          turn: [15, 0, 0],
          shape: {
            form: 'prism',
            outline: [
              [0, 0],
              [3, 0],
              [0, 2],
            ],
            heightMetres: 2,
          },
        },
      },
    ];
    for (const placed of items) {
      for (const axis of ['x', 'z'] as const) {
        const once = {
          kind: placed.kind,
          item: { ...placed.item, ...mirroredFields(placed, axis, 2.5) },
        } as AnyItem;
        expect({ ...once.item, ...mirroredFields(once, axis, 2.5) }).toEqual(placed.item);
      }
      const turned = {
        kind: placed.kind,
        item: { ...placed.item, ...turnedFields(placed, 90, [4, 4]) },
      } as AnyItem;
      expect({ ...turned.item, ...turnedFields(turned, -90, [4, 4]) }).toEqual(placed.item);
      const moved = {
        kind: placed.kind,
        item: { ...placed.item, ...movedFields(placed, [1.5, 2, -3]) },
      } as AnyItem;
      expect(anchorOf(moved)).toEqual(anchorOf(placed)?.map((value, i) => value + [1.5, 2, -3][i]));
    }
  });

  it('turns a corner of a block about a point of the plan', () => {
    const one = block({ turn: [0, 0, 0], planes: boxPlanes([2, 3, 4]) });
    const turned = { ...one, ...turnedFields({ kind: 'block', item: one }, 90, [3, 1]) } as Block;
    expect(turned.position).toEqual([3, 0, 1]);
    expect(
      placePoint(turned.position, turnMatrix(turned.turn), [1, 1, 1], [1, 0, 0]).map(
        (value) => Math.round(value * 1e6) / 1e6,
      ),
    ).toEqual([3, 0, 0]);
  });

  it('moves only the knots of a path that lie within a region', () => {
    const moved = movedWithin(path, [5, -1, -5], [15, 1, 5], [0, 0, 2]) as unknown as {
      knots: { position: Vector3 }[];
    };
    expect(moved.knots.map(({ position }) => position)).toEqual([
      [0, 0, 0],
      [10, 0, 2],
    ]);
    expect(movedWithin(path, [50, -1, -5], [60, 1, 5], [0, 0, 2])).toEqual({});
  });
});
