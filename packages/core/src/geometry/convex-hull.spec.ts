import fc from 'fast-check';
import { convexHull, type ConvexHull } from './convex-hull';

const flat = (points: readonly (readonly number[])[]): Float32Array => Float32Array.from(points.flat());
const cube = [0, 1].flatMap((x) => [0, 1].flatMap((y) => [0, 1].map((z) => [x, y, z])));
const grid = [0, 1, 2, 3].flatMap((x) => [0, 1, 2, 3].flatMap((y) => [0, 1, 2, 3].map((z) => [x, y, z])));

function corner({ positions }: ConvexHull, i: number): number[] {
  return [positions[i * 3], positions[i * 3 + 1], positions[i * 3 + 2]];
}

function planes(hull: ConvexHull): { n: number[]; d: number }[] {
  return Array.from({ length: hull.indices.length / 3 }, (_unused, t) => {
    const [a, b, c] = [0, 1, 2].map((k) => corner(hull, hull.indices[t * 3 + k]));
    const [u, v] = [b, c].map((p) => p.map((value, k) => value - a[k]));
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const size = Math.hypot(...n);
    return { n: n.map((value) => value / size), d: n.reduce((sum, value, k) => sum + (value / size) * a[k], 0) };
  });
}

/** How far a point lies beyond the outermost plane. */
function beyond(hull: ConvexHull, points: Float32Array): number {
  const all = planes(hull);
  let most = -Infinity;
  for (let i = 0; i < points.length; i += 3)
    for (const { n, d } of all)
      most = Math.max(most, n[0] * points[i] + n[1] * points[i + 1] + n[2] * points[i + 2] - d);
  return most;
}

function volume(hull: ConvexHull): number {
  let sum = 0;
  for (let t = 0; t < hull.indices.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => corner(hull, hull.indices[t + k]));
    sum += a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
  }
  return sum / 6;
}

/** Every edge is passed once in either direction. */
function isClosed({ indices }: ConvexHull): boolean {
  const edges = new Set<string>();
  for (let t = 0; t < indices.length; t += 3)
    for (let k = 0; k < 3; k++) edges.add(`${indices[t + k]} ${indices[t + ((k + 1) % 3)]}`);
  return edges.size === indices.length && [...edges].every((edge) => edges.has(edge.split(' ').reverse().join(' ')));
}

describe('the convex hull', () => {
  it('of a cube has its 8 corners and 12 triangles that look outward', () => {
    const hull = convexHull(flat(cube));
    expect([hull?.positions.length, hull?.indices.length, hull?.outside]).toEqual([24, 36, []]);
    expect(hull && [volume(hull), isClosed(hull)]).toEqual([1, true]);
  });

  it('leaves out what lies on its sides and edges and within: a grid of 64 points has 8 corners', () => {
    const hull = convexHull(flat([...grid].reverse()));
    expect(hull && [hull.positions.length / 3, Math.round(volume(hull) * 1e5) / 1e5, isClosed(hull)]).toEqual([
      8,
      27,
      true,
    ]);
  });

  it('is none of points in a plane, on a line, in one place, or fewer than four', () => {
    for (const points of [
      [],
      cube.slice(0, 3),
      cube.map(([x, y]) => [x, y, x + y]),
      cube.map(([x]) => [x, x, x]),
      cube.map(() => [3, 4, 5]),
      grid.map(([x, , z]) => [x, 0, z]),
    ])
      expect(convexHull(flat(points))).toBeUndefined();
  });

  it('says what it cannot take', () => {
    expect(() => convexHull(flat(cube), 3)).toThrow('hull: takes at least 4 corners, not 3');
    expect(() => convexHull(Float32Array.of(0, 0, NaN))).toThrow('hull: positions[2] is NaN');
  });

  const point = fc.tuple(
    fc.oneof(fc.integer({ min: -3, max: 3 }), fc.float({ min: -3, max: 3, noNaN: true })),
    fc.oneof(fc.integer({ min: -3, max: 3 }), fc.float({ min: -3, max: 3, noNaN: true })),
    fc.oneof(fc.integer({ min: -3, max: 3 }), fc.float({ min: -3, max: 3, noNaN: true })),
  );

  it('holds all points, whatever their scale and place, and each of its corners is one of them', () => {
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 4, maxLength: 60 }),
        fc.constantFrom(1e-4, 1, 1e4),
        fc.constantFrom(0, 50, 5000),
        (points, scale, far) => {
          const all = flat(points.map((p) => p.map((value) => (value + far) * scale)));
          const hull = convexHull(all);
          if (!hull) return;
          // What float32 holds at that place, and what counts as on a plane.
          const tolerance = scale * (6e-5 + far * 1e-6);
          expect(hull.outside).toEqual([]);
          expect(beyond(hull, all)).toBeLessThan(tolerance);
          expect([isClosed(hull), volume(hull) > 0 || far > 0]).toEqual([true, true]);
          const known = new Set(
            Array.from({ length: all.length / 3 }, (_unused, i) => all.slice(i * 3, i * 3 + 3).join()),
          );
          for (let i = 0; i < hull.positions.length / 3; i++) expect(known.has(corner(hull, i).join())).toBe(true);
        },
      ),
      { numRuns: 400 },
    );
  });

  it('reaches as far as the points in every direction, as all their triples tell it', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: 0, max: 4 }))), { minLength: 4, maxLength: 14 }),
        (points) => {
          const hull = convexHull(flat(points));
          // A triple with all others on one side of its plane is a side; without volume there is none, or there are two.
          const sides: number[][] = [];
          for (const a of points)
            for (const b of points)
              for (const c of points) {
                const [u, v] = [b, c].map((p) => p.map((value, k) => value - a[k]));
                const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
                if (n.every((value) => value === 0)) continue;
                const heights = points.map((p) => n.reduce((sum, value, k) => sum + value * (p[k] - a[k]), 0));
                if (heights.every((height) => height <= 0) && heights.some((height) => height < 0)) sides.push(n);
              }
          expect(hull === undefined).toBe(sides.length === 0);
          for (const n of sides) {
            const reach = (p: readonly number[]): number => n.reduce((sum, value, k) => sum + value * p[k], 0);
            const corners = Array.from({ length: (hull?.positions.length ?? 0) / 3 }, (_unused, i) =>
              hull ? corner(hull, i) : [],
            );
            expect(Math.max(...corners.map(reach))).toBe(Math.max(...points.map(reach)));
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  it('with few corners lies within the whole one, and tells what is outside', () => {
    const ball = Array.from({ length: 2000 }, (_unused, i) => {
      const [height, turn] = [1 - (2 * i + 1) / 2000, i * 2.399963];
      const ring = Math.sqrt(1 - height * height);
      return [Math.cos(turn) * ring, height, Math.sin(turn) * ring];
    });
    const [whole, few] = [convexHull(flat(ball)), convexHull(flat(ball), 64)];
    expect([whole?.positions.length, few?.positions.length]).toEqual([6000, 192]);
    if (!whole || !few) throw new Error('no hull');
    expect(beyond(whole, few.positions)).toBeLessThan(1e-5);
    expect([isClosed(few), few.outside.length > 1000]).toEqual([true, true]);
    // 64 corners on a ball: its sides cut off less than a tenth of its radius.
    expect([beyond(few, flat(ball)) < 0.15, volume(few) > 3.5]).toEqual([true, true]);
    const again = convexHull(flat(ball), 64);
    expect(again).toEqual(few);
  });
});
