import fc from 'fast-check';
import { boxPlanes, prismPlanes, wedgePlanes } from '../../geometry/block-solid';
import type { BlockPlane } from '../../model/block';
import type { Vector3 } from '../../model/vector';
import {
  checkedPlanes,
  cutBlock,
  cylinderPlanes,
  hollowBlock,
  joinBlocks,
  moveFace,
  type BlockShape,
} from './block-edits';
import { planeSolid } from './plane-solid';

const shape = (planes: readonly BlockPlane[], over: Partial<BlockShape> = {}): BlockShape => ({
  position: [0, 0, 0],
  turn: [0, 0, 0],
  planes,
  ...over,
});
const cubic = (planes: readonly BlockPlane[]): number => planeSolid(planes)?.cubicMetres ?? 0;

describe('volume', () => {
  it('is that of a box, a wedge and a prism worked out by hand', () => {
    expect(cubic(boxPlanes([2, 3, 4]))).toBeCloseTo(24, 6);
    expect(cubic(wedgePlanes([2, 3, 4]))).toBeCloseTo(12, 6);
    expect(
      cubic(
        prismPlanes(
          [
            [0, 0],
            [4, 0],
            [0, 3],
          ],
          2,
        ),
      ),
    ).toBeCloseTo(12, 6);
  });
});

describe('a cylinder', () => {
  it('has the volume of its outline, and one with many sides nearly that of a round one', () => {
    expect(cubic(cylinderPlanes([2, 5, 2], 4))).toBeCloseTo(10, 5);
    expect(cubic(cylinderPlanes([2, 1, 2], 64)) / Math.PI).toBeCloseTo(1, 2);
    expect(checkedPlanes(cylinderPlanes([2, 1, 3], 7)).faces).toHaveLength(9);
  });

  it.each([2, 65, 3.5, NaN])('is refused with %p sides', (sides) => {
    expect(() => cylinderPlanes([1, 1, 1], sides)).toThrow(
      expect.objectContaining({ code: 'CYLINDER_SIDES' }) as Error,
    );
  });
});

describe('cutting', () => {
  it('keeps surfaces with their faces', () => {
    const face = (plane: number) => ({
      plane,
      surface: `s${plane}`,
      tileMetres: [1, 1] as const,
      offsetMetres: [0, 0] as const,
    });
    const { back, front } = cutBlock(shape(boxPlanes([4, 2, 2]), { faces: [face(0), face(2)] }), [1, 0, 0, 0.5]);
    expect(back.faces?.map(({ surface }) => surface)).toEqual(['s2']);
    expect(front.faces?.map(({ surface }) => surface)).toEqual(['s0', 's2']);
    expect(front.faces?.map(({ plane }) => front.planes[plane].slice(0, 3))).toEqual([
      [1, 0, 0],
      [0, 1, 0],
    ]);
  });

  it.each<[string, BlockPlane]>([
    ['beside it', [1, 0, 0, 5]],
    ['through its own face', [1, 0, 0, 2]],
    ['through its own face from the other side', [-1, 0, 0, -2]],
    ['along an edge', [1, 1, 0, 4]],
  ])('by a plane %s is refused', (_where, plane) => {
    expect(() => cutBlock(shape(boxPlanes([4, 2, 2])), plane)).toThrow(
      expect.objectContaining({ code: 'CUT_MISSES' }) as Error,
    );
  });

  it('then joining keeps the volume within 1e-9 of it, at any place and turn', () => {
    const number = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.constantFrom(boxPlanes([4, 3, 5]), wedgePlanes([3, 2, 6]), cylinderPlanes([4, 6, 4], 9)),
        fc.tuple(number, number, number),
        fc.tuple(number, number, number),
        fc.tuple(number, number, number),
        number,
        (planes, place, turn, normal, share) => {
          fc.pre(Math.hypot(...normal) > 0.2);
          const position = place.map((value) => value * 40) as unknown as Vector3;
          const block = shape(planes, { position, turn: turn.map((value) => value * 180) as unknown as Vector3 });
          const through: BlockPlane = [
            ...(normal as unknown as Vector3),
            normal.reduce((sum, n, k) => sum + n * (position[k] + share), 0),
          ];
          let parts: ReturnType<typeof cutBlock>;
          try {
            parts = cutBlock(block, through);
          } catch {
            fc.pre(false);
            return;
          }
          const whole = cubic(planes);
          const [back, front] = [cubic(parts.back.planes), cubic(parts.front.planes)];
          expect(Math.abs(back + front - whole)).toBeLessThanOrEqual(1e-9 * whole);
          // Slivers thinner than planes are told apart cannot be joined again.
          fc.pre(Math.min(back, front) > 1e-3 * whole);
          const joined = joinBlocks({ ...block, ...parts.back }, { ...block, ...parts.front });
          expect(Math.abs(cubic(joined.planes) - whole)).toBeLessThanOrEqual(1e-9 * whole);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('joining', () => {
  it('makes one box of two that stand side by side, turned against each other', () => {
    const joined = joinBlocks(
      shape(boxPlanes([2, 3, 2])),
      shape(boxPlanes([2, 3, 4]), { position: [3, 0, 0], turn: [90, 0, 0] }),
    );
    expect(joined.planes).toHaveLength(6);
    expect(cubic(joined.planes)).toBeCloseTo(36, 5);
  });

  it.each<[string, Partial<BlockShape>]>([
    ['apart', { position: [9, 0, 0] }],
    ['a step higher', { position: [2, 1, 0] }],
    ['across', { position: [0.5, 0, 2] }],
  ])('is refused for blocks that stand %s', (_how, over) => {
    expect(() => joinBlocks(shape(boxPlanes([2, 3, 2])), shape(boxPlanes([2, 3, 2]), over))).toThrow(
      expect.objectContaining({ code: 'JOIN_NOT_CONVEX' }) as Error,
    );
  });

  it('takes a block that lies within the other', () => {
    expect(
      cubic(joinBlocks(shape(boxPlanes([4, 4, 4])), shape(boxPlanes([1, 1, 1]), { position: [0, 1, 0] })).planes),
    ).toBeCloseTo(64, 5);
  });
});

describe('hollowing', () => {
  it('leaves walls that make up all but the hollow', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(boxPlanes([4, 3, 5]), cylinderPlanes([4, 6, 4], 7), wedgePlanes([6, 5, 6])),
        fc.double({ min: 0.05, max: 0.4, noNaN: true }),
        (planes, metres) => {
          const walls = hollowBlock(shape(planes), metres);
          const inner = cubic(planes.map(([x, y, z, d]): BlockPlane => [x, y, z, d - metres * Math.hypot(x, y, z)]));
          expect(walls.length).toBe(planes.length);
          expect(walls.reduce((sum, wall) => sum + cubic(wall.planes), inner)).toBeCloseTo(cubic(planes), 5);
          walls.forEach((wall, i) =>
            walls.slice(i + 1).forEach((other) => expect(cubic([...wall.planes, ...other.planes])).toBeLessThan(1e-6)),
          );
        },
      ),
      { numRuns: 30 },
    );
  });

  it('is refused when nothing would be left', () => {
    expect(() => hollowBlock(shape(boxPlanes([4, 1, 4])), 0.5)).toThrow(
      expect.objectContaining({
        code: 'HOLLOW_TOO_THICK',
        message: expect.stringContaining('1.00 m thick') as string,
      }) as Error,
    );
    expect(() => hollowBlock(shape(boxPlanes([4, 1, 4])), 0)).toThrow(
      expect.objectContaining({ code: 'HOLLOW_TOO_THICK' }) as Error,
    );
  });
});

describe('moving a face', () => {
  it('makes the block longer or shorter by that much', () => {
    expect(cubic(moveFace(shape(boxPlanes([2, 3, 4])), 0, 1.5).planes)).toBeCloseTo(42, 5);
    expect(cubic(moveFace(shape(boxPlanes([2, 3, 4])), 2, -1).planes)).toBeCloseTo(16, 5);
  });

  it('is refused beyond the other side, or where its neighbours cut it off', () => {
    expect(() => moveFace(shape(boxPlanes([2, 3, 4])), 0, -2)).toThrow(
      expect.objectContaining({ code: 'BLOCK_EMPTY' }) as Error,
    );
    // The corner of a box cut off: moved out beyond the corner, the cut is no face any more.
    const cornered: BlockPlane[] = [...boxPlanes([2, 2, 2]), [1, 0, 1, 1.5]];
    expect(() => moveFace(shape(cornered), 6, 1)).toThrow(expect.objectContaining({ code: 'FACE_GONE' }) as Error);
  });
});
