import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { boxPlanes } from '../geometry/block-solid';
import type { Box3, Vector3 } from '../model/vector';
import { bakeSight } from './bake-sight';
import { OUTSIDE, gapShape, type Passage } from './gap';
import type { HidingBlock } from './sight-input';
import type { SightResult } from './sight-result';

const box = (id: string, min: Vector3, max: Vector3): HidingBlock => ({
  id,
  position: [(min[0] + max[0]) / 2, min[1], (min[2] + max[2]) / 2],
  turn: [0, 0, 0],
  planes: boxPlanes([max[0] - min[0], max[1] - min[1], max[2] - min[2]]),
});
/** Room of 4 by 3 by 4 with its inner corner at the origin; of its south wall some pieces. */
const room = (...south: HidingBlock[]): HidingBlock[] => [
  box('floor', [-1, -1, -1], [5, 0, 5]),
  box('roof', [-1, 3, -1], [5, 4, 5]),
  box('west', [-1, 0, -1], [0, 3, 5]),
  box('east', [4, 0, -1], [5, 3, 5]),
  box('north', [0, 0, -1], [4, 3, 0]),
  ...south,
];
const bake = (blocks: readonly HidingBlock[], bounds: Box3 | null = null, spawn: Vector3 = [2, 0, 2]): SightResult =>
  bakeSight(
    { blocks, dividers: [], spawns: [{ id: 's', position: spawn }], bounds, openSky: false },
    {},
    createRunContext(),
  );
const FAR: Box3 = { min: [-20, -5, -20], max: [25, 20, 25] };

describe('the gap of a way out', () => {
  it('is the slit between two walls, named by them, with and without land around', () => {
    const walls = room(box('left', [0, 0, 4], [1.5, 3, 5]), box('right', [1.9, 0, 4], [4, 3, 5]));
    for (const bounds of [null, FAR]) {
      const { gap, findings } = bake(walls, bounds);
      expect(gap?.sizeMetres.map((value) => Math.round(value * 1e6) / 1e6)).toEqual([0.4, 3]);
      expect([...(gap?.blocks ?? [])].sort()).toEqual(['left', 'right']);
      const z = gap?.polygons.flat().filter((_value, i) => i % 3 === 2) ?? [];
      expect([Math.min(...z), Math.max(...z)].every((value) => value >= 4 && value <= 5)).toBe(true);
      expect(findings[0].message).toMatch(
        /^Open to the outside: closing the gap of 0\.4 × 3 m at 1\.7, 1\.5, [45](\.\d+)? would close it$/,
      );
    }
  });

  it('lies between a wall that is too low and the roof', () => {
    const { gap } = bake(room(box('low', [0, 0, 4], [4, 2.75, 5])), FAR);
    expect(gap?.sizeMetres.map((value) => Math.round(value * 1e6) / 1e6)).toEqual([4, 0.25]);
    expect([...(gap?.blocks ?? [])].sort()).toEqual(['low', 'roof']);
  });

  it('is the last door before a hole so wide that one pocket passes through it', () => {
    const inner = [
      box('inner a', [0, 0, 1.9], [1.5, 3, 2.1]),
      box('inner b', [2.5, 0, 1.9], [4, 3, 2.1]),
      box('over the door', [1.5, 2, 1.9], [2.5, 3, 2.1]),
    ];
    const { gap } = bake([...room(box('left', [0, 0, 4], [0.5, 3, 5])), ...inner], FAR, [1, 0, 1]);
    expect(gap?.sizeMetres.map((value) => Math.round(value * 1e6) / 1e6)).toEqual([1, 2]);
    expect([gap?.closes, gap?.blocks]).toEqual([true, ['inner a', 'inner b']]);
  });

  it('is the smallest opening of the way where two holes lead out', () => {
    const walls = room(
      box('left', [0, 0, 4], [1, 3, 5]),
      box('middle', [1.2, 0, 4], [3, 3, 5]),
      box('right', [3.5, 0, 4], [4, 3, 5]),
    );
    const { gap } = bake(walls, FAR, [0.5, 0, 3]);
    expect([gap?.closes, gap?.sizeMetres[0]]).toEqual([false, expect.closeTo(0.2, 6)]);
  });

  it('is none in a closed level', () => {
    expect(bake(room(box('south', [0, 0, 4], [4, 3, 5]))).gap).toBeNull();
  });

  it('closes the level wherever one opening can, the outermost of them: as a plain search finds it', () => {
    const edges = fc.array(fc.tuple(fc.nat(7), fc.nat(7)), { maxLength: 14 });
    fc.assert(
      fc.property(edges, fc.uniqueArray(fc.nat(7), { minLength: 1, maxLength: 3 }), (pairs, exits) => {
        const doors = pairs.filter(([a, b]) => a !== b);
        const passages = [...doors, ...exits.map((exit) => [exit, OUTSIDE] as const)].map(
          ([first, second], plane): Passage => ({
            first,
            second,
            plane,
            corners: [plane, 0, 0, plane, 1, 0, plane, 1, 1],
          }),
        );
        const route = shortest(passages);
        if (!route) return;
        const cuts = route.filter((one) => !shortest(passages.filter((_other, i) => i !== one)));
        const { polygons, closes } = gapShape([0], route, passages);
        expect([polygons[0][0], closes]).toEqual([cuts.at(-1) ?? route.at(-1), cuts.length > 0]);
      }),
    );
  });

  it('is found among ten thousand passages of one plane, which are one hole', () => {
    const side = 100;
    const passages = Array.from({ length: side * side }, (_unused, i): Passage => {
      const [x, y] = [i % side, Math.floor(i / side)];
      return { first: i, second: OUTSIDE, plane: 0, corners: [x, y, 0, x + 1, y, 0, x + 1, y + 1, 0, x, y + 1, 0] };
    });
    const all = [...passages.keys()];
    expect(gapShape(all, [5], passages)).toMatchObject({ closes: true, polygons: { length: side * side } });
  });

  it('takes what one plane divides as one hole, and what lies apart in it as another', () => {
    const square = (x: number): number[] => [x, 0, 0, x + 1, 0, 0, x + 1, 1, 0, x, 1, 0];
    const passages: Passage[] = [0, 1, 3].map((x, i) => ({
      first: i === 2 ? 1 : 0,
      second: OUTSIDE,
      plane: 7,
      corners: square(x),
    }));
    expect(gapShape([0], [1], passages).polygons).toHaveLength(2);
    expect(gapShape([0, 1], [2], passages)).toEqual({ polygons: [square(3)], closes: false });
  });
});

/** Passages from pocket 0 to the outside, as few as can be, breadth first; undefined when it is closed. */
function shortest(passages: readonly Passage[]): number[] | undefined {
  const seen = new Set([0]);
  let front: { at: number; path: number[] }[] = [{ at: 0, path: [] }];
  while (front.length > 0) {
    const found = front.find(({ at }) => at === OUTSIDE);
    if (found) return found.path;
    front = front.flatMap(({ at, path }) =>
      passages.flatMap(({ first, second, plane }) => {
        const next = first === at ? second : second === at ? first : undefined;
        if (next === undefined || seen.has(next)) return [];
        seen.add(next);
        return [{ at: next, path: [...path, plane] }];
      }),
    );
  }
  return undefined;
}
