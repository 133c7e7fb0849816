import fc from 'fast-check';
import type { CollisionMesh } from '../detail/collision/collision-spec';
import { placePoint, turnMatrix } from '../geometry/turn';
import type { Placement } from '../model/placement';
import type { Box3, Vector3 } from '../model/vector';
import { meshCarrier } from './carriers';

const mesh = (
  points: readonly Vector3[],
  indices: readonly number[],
  backs: readonly number[] = [],
): CollisionMesh => ({
  positions: Float32Array.from(points.flat()),
  indices: Uint32Array.from(indices),
  backs: Uint32Array.from(backs),
  outsideMetres: 0,
});
const at = (over: Partial<Placement> = {}): Placement => ({
  id: 'p',
  piece: 'stack',
  position: [0, 0, 0],
  turn: [0, 0, 0],
  scale: [1, 1, 1],
  ...over,
});
const ANYWHERE: Box3 = { min: [-1e6, -1e6, -1e6], max: [1e6, 1e6, 1e6] };
const carrier = (of: CollisionMesh, placement = at()) => meshCarrier(of, placement, ANYWHERE);

/** A sheet of 2 m by 2 m at a height, of two triangles that look up. */
const sheet = (y: number): Vector3[] => [
  [-1, y, -1],
  [-1, y, 1],
  [1, y, 1],
  [1, y, -1],
];
const UP = [0, 1, 2, 0, 2, 3];

describe('a piece that carries', () => {
  it('does so where its triangles look up, up to their edges and over their seam', () => {
    const { floorAt } = carrier(mesh(sheet(2), UP));
    const looks: [number, number][] = [
      [0, 0],
      [1, 1],
      [-1, -1],
      [0.5, 0.5],
      [1, 0.25],
      [1.001, 0],
      [0, -1.001],
    ];
    expect(looks.map(([x, z]) => floorAt(x, z, 2))).toEqual([2, 2, 2, 2, 2, undefined, undefined]);
    expect(floorAt(0, 0, 1.9)).toBeUndefined();
  });

  it('has its highest floor at most as high as asked for, and not its undersides', () => {
    const storeys = mesh(
      [...sheet(0), ...sheet(3), ...sheet(2.8)],
      [
        ...UP,
        ...UP.map((i) => i + 4),
        // The ceiling looks down.
        ...[8, 10, 9, 8, 11, 10],
      ],
    );
    const { floorAt } = carrier(storeys);
    expect([0, 0.6, 2.9, 3, 9].map((limit) => floorAt(0.2, 0.1, limit))).toEqual([0, 0, 0, 3, 3]);
  });

  it('is met from behind where its material has two sides', () => {
    const down = UP.map((_i, k) => UP[k - (k % 3) + [0, 2, 1][k % 3]]);
    expect(carrier(mesh(sheet(1), down)).floorAt(0, 0, 5)).toBeUndefined();
    expect(carrier(mesh(sheet(1), down, UP)).floorAt(0, 0, 5)).toBe(1);
  });

  it('carries on top however it is turned or mirrored', () => {
    const { floorAt } = carrier(mesh(sheet(1), UP), at({ scale: [-2, 1, 1], position: [10, 4, 0] }));
    expect([floorAt(11.9, 0.5, 9), floorAt(12.1, 0.5, 9)]).toEqual([5, undefined]);
    // Mirrored upside down its top looks down: nothing carries.
    expect(carrier(mesh(sheet(1), UP), at({ scale: [1, -1, 1] })).floorAt(0, 0, 9)).toBeUndefined();
    expect(carrier(mesh(sheet(1), UP), at({ turn: [0, 180, 0] })).floorAt(0, 0, 9)).toBeUndefined();
  });

  it('does not carry by walls, nor by triangles without area, nor where there are none', () => {
    const wall = mesh(
      [
        [0, 0, 0],
        [0, 2, 0],
        [0, 0, 2],
      ],
      [0, 1, 2, 0, 2, 1],
    );
    expect(carrier(wall).floorAt(0, 0.5, 5)).toBeUndefined();
    expect(
      carrier(
        mesh(
          [
            [0, 0, 0],
            [1, 0, 1],
            [2, 0, 2],
          ],
          [0, 1, 2],
        ),
      ).floorAt(1, 1, 5),
    ).toBeUndefined();
    expect(carrier(mesh([], [])).floorAt(0, 0, 5)).toBeUndefined();
  });

  const number = (low: number, high: number) => fc.double({ min: low, max: high, noNaN: true });
  const vector = fc.tuple(number(-4, 4), number(-4, 4), number(-4, 4));

  it('as each triangle by itself says, crossed by a plumb line', () => {
    fc.assert(
      fc.property(
        fc.array(vector, { minLength: 3, maxLength: 12 }),
        fc.array(fc.nat(11), { minLength: 3, maxLength: 30 }),
        fc.record({
          position: fc.tuple(number(-50, 50), number(-5, 5), number(-50, 50)),
          turn: fc.tuple(number(-180, 180), number(-90, 90), number(-180, 180)),
          scale: fc.tuple(fc.constantFrom(-1.5, 0.5, 2), fc.constantFrom(-1, 1), fc.constantFrom(-0.7, 1)),
        }),
        number(-4, 4),
        number(-4, 4),
        number(-10, 10),
        (points, raw, over, dx, dz, limit) => {
          const indices = raw.slice(0, raw.length - (raw.length % 3)).map((i) => i % points.length);
          const solid = mesh(points, indices);
          const placement = at(over);
          const [x, z] = [over.position[0] + dx, over.position[2] + dz];
          const m = turnMatrix(over.turn);
          const mirror = over.scale[0] * over.scale[1] * over.scale[2] < 0 ? -1 : 1;
          let expected: number | undefined;
          let isNear = false;
          for (let t = 0; t < indices.length; t += 3) {
            const [a, b, c] = [0, 1, 2].map((k) => {
              const i = indices[t + k] * 3;
              return placePoint(over.position, m, over.scale, [
                solid.positions[i],
                solid.positions[i + 1],
                solid.positions[i + 2],
              ]);
            });
            // a + u (b − a) + v (c − a) over the point, by Cramer's rule.
            const det = (b[0] - a[0]) * (c[2] - a[2]) - (c[0] - a[0]) * (b[2] - a[2]);
            // Upright or without area: neither way is right at the edge.
            if (Math.abs(det) < 1e-3) {
              isNear = true;
              continue;
            }
            const u = ((x - a[0]) * (c[2] - a[2]) - (c[0] - a[0]) * (z - a[2])) / det;
            const v = ((b[0] - a[0]) * (z - a[2]) - (x - a[0]) * (b[2] - a[2])) / det;
            const [least, height] = [Math.min(u, v, 1 - u - v), a[1] + u * (b[1] - a[1]) + v * (c[1] - a[1])];
            if (Math.abs(least) < 1e-3 || Math.abs(height - limit) < 1e-6) isNear = true;
            // Counter-clockwise seen from above turns from z to x.
            if (least > 0 && -det * mirror > 0 && height <= limit && !(expected !== undefined && expected >= height))
              expected = height;
          }
          if (isNear) return;
          const found = carrier(solid, placement).floorAt(x, z, limit);
          if (expected === undefined) expect(found).toBeUndefined();
          else expect(found).toBeCloseTo(expected, 6);
        },
      ),
      { numRuns: 600 },
    );
  });
});
