import fc from 'fast-check';
import type { Box3, Vector3 } from '../model/vector';
import { checkClosure, pocketAt, type ClosurePocket } from './closure';
import { openingTable } from './opening-polygons';
import { thingsOfPockets } from './pocket-things';

type Planes = ClosurePocket['planes'];
const boxOf = (min: Vector3, max: Vector3): Planes => [
  [1, 0, 0, max[0]],
  [-1, 0, 0, -min[0]],
  [0, 1, 0, max[1]],
  [0, -1, 0, -min[1]],
  [0, 0, 1, max[2]],
  [0, 0, -1, -min[2]],
];
/** Rooms of 2 m in a row along x; a door between neighbours named in `doors`. */
function row(
  count: number,
  doors: readonly number[],
  exits: readonly number[],
): { pockets: ClosurePocket[]; openings: ReturnType<typeof openingTable> } {
  return {
    pockets: Array.from({ length: count }, (_unused, i) => ({
      planes: boxOf([i * 2, 0, 0], [i * 2 + 2, 2, 2]),
      exits: exits.includes(i)
        ? [{ side: 0, corners: [i * 2, 2, 0, i * 2 + 2, 2, 0, i * 2 + 2, 2, 2, i * 2, 2, 2] }]
        : [],
    })),
    openings: openingTable(
      doors.map((i) => ({
        first: i,
        second: i + 1,
        planeNumber: i,
        plane: [1, 0, 0, i * 2 + 2] as const,
        corners: Float64Array.of(i * 2 + 2, 0, 0, i * 2 + 2, 2, 0, i * 2 + 2, 2, 2, i * 2 + 2, 0, 2),
      })),
    ),
  };
}
const input = (spawns: readonly Vector3[], openSky = false) => ({
  blocks: [],
  dividers: [],
  spawns: spawns.map((position, i) => ({ id: `s${i}`, position })),
  bounds: null,
  openSky,
});

describe('closure', () => {
  it('reaches what doors lead to and nothing else', () => {
    const { pockets, openings } = row(5, [0, 1, 3], []);
    const { reached, closed, wayOut, findings } = checkClosure(input([[1, 0, 1]]), pockets, openings);
    expect([...reached]).toEqual([1, 1, 1, 0, 0]);
    expect([closed, wayOut, findings]).toEqual([true, null, []]);
  });

  it('finds the shortest of several ways out, by hand', () => {
    const { pockets, openings } = row(6, [0, 1, 2, 3, 4], [0, 5]);
    const { wayOut, closed } = checkClosure(input([[9, 0, 1]]), pockets, openings);
    expect(closed).toBe(false);
    expect(wayOut).toEqual([
      [9, 0, 1],
      [10, 1, 1],
      [11, 2, 1],
    ]);
    const west = checkClosure(input([[3, 0, 1]]), pockets, openings).wayOut as Vector3[];
    expect(west[west.length - 1]).toEqual([1, 2, 1]);
  });

  it('calls nothing a leak under open sky, and nothing closed that has no spawn', () => {
    const { pockets, openings } = row(2, [0], [1]);
    expect(checkClosure(input([[1, 0, 1]], true), pockets, openings).closed).toBe(true);
    const without = checkClosure(input([]), pockets, openings);
    expect(without.findings.map(({ code }) => code)).toEqual(['NO_SPAWN']);
    expect([...without.reached]).toEqual([1, 1]);
  });

  it('tells of each spawn that stands nowhere', () => {
    const { pockets, openings } = row(1, [], []);
    const { findings } = checkClosure(
      input([
        [1, 0, 1],
        [50, 0, 50],
        [-3, 1, 1],
      ]),
      pockets,
      openings,
    );
    expect(findings.map(({ code, subject }) => `${code} ${subject}`)).toEqual([
      'SPAWN_IN_BLOCK s1',
      'SPAWN_IN_BLOCK s2',
    ]);
  });

  it('finds the pocket of a point, its faces included', () => {
    const { pockets } = row(3, [], []);
    expect([pocketAt(pockets, [1, 1, 1]), pocketAt(pockets, [5, 0, 0]), pocketAt(pockets, [7, 1, 1])]).toEqual([
      0, 2, -1,
    ]);
  });
});

describe('things of pockets', () => {
  const part = fc.double({ min: 0, max: 10, noNaN: true });
  const box = fc.tuple(part, part, part, part, part, part).map(([a, b, c, d, e, f]): Box3 => ({
    min: [Math.min(a, d), Math.min(b, e), Math.min(c, f)],
    max: [Math.max(a, d), Math.max(b, e), Math.max(c, f)],
  }));

  it('are in every pocket that their bounds touch, and in no other', () => {
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 6 }), fc.array(box, { maxLength: 8 }), (pockets, things) => {
        const found = thingsOfPockets(
          pockets.map((bounds) => ({ bounds, planes: boxOf(bounds.min, bounds.max) })),
          Float64Array.from(things.flatMap(({ min, max }) => [...min, ...max])),
        );
        pockets.forEach((pocket, p) => {
          things.forEach((thing, t) => {
            const gap = Math.max(
              ...[0, 1, 2].map((k) => Math.max(thing.min[k] - pocket.max[k], pocket.min[k] - thing.max[k])),
            );
            if (Math.abs(gap - 1e-3) < 1e-9) return;
            expect(found[p].includes(t)).toBe(gap <= 1e-3);
          });
        });
      }),
    );
  });

  it('are not in a pocket whose slanted face they stay clear of', () => {
    const slanted = {
      bounds: { min: [0, 0, 0], max: [4, 4, 4] } as Box3,
      planes: [...boxOf([0, 0, 0], [4, 4, 4]), [Math.SQRT1_2, 0, Math.SQRT1_2, Math.SQRT1_2 * 4] as const],
    };
    const corner = Float64Array.of(3.5, 0, 3.5, 4, 1, 4);
    const inside = Float64Array.of(1, 0, 1, 1.5, 1, 1.5);
    expect(thingsOfPockets([slanted], corner)).toEqual([[]]);
    expect(thingsOfPockets([slanted], inside)).toEqual([[0]]);
  });
});
