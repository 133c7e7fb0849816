import fc from 'fast-check';
import { polygonTriangles } from './polygon-triangles';

type Point = readonly [number, number, number];

const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const dot = (a: Point, b: Point): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const length = (a: Point): number => Math.sqrt(dot(a, a));
const cornersOf = (flat: readonly number[]): Point[] =>
  Array.from({ length: flat.length / 3 }, (_unused, i): Point => [flat[i * 3], flat[i * 3 + 1], flat[i * 3 + 2]]);

/** Twice the area of a polygon, as a vector along its normal. */
function normalOf(corners: readonly Point[]): Point {
  const sum: [number, number, number] = [0, 0, 0];
  corners.forEach((a, i) => {
    const part = cross(minus(a, corners[0]), minus(corners[(i + 1) % corners.length], corners[0]));
    for (let k = 0; k < 3; k++) sum[k] += part[k];
  });
  return sum;
}

/** Corners around a middle at ascending angles, at distances of their own: simple, and concave as a rule. */
const star = fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 4, maxLength: 40 });
/** A plane to put it into, and how far from the origin. */
const frame = fc.record({
  u: fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), fc.integer({ min: 1, max: 9 })),
  v: fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: -9, max: 9 }), fc.constant(0)),
  far: fc.constantFrom(0, 1000, 100000),
});

describe('triangles of a polygon', () => {
  it('are a fan where it is convex, whichever way round and wherever it lies', () => {
    for (const far of [0, 1e6]) {
      const square = [0, 0, 0, 1, 0, 0, 1, 0, 1, 0, 0, 1].map((value) => value + far);
      expect(polygonTriangles(square)).toEqual([0, 1, 2, 0, 2, 3]);
      const reversed = [0, 0, 0, 0, 0, 1, 1, 0, 1, 1, 0, 0].map((value) => value + far);
      expect(polygonTriangles(reversed)).toEqual([0, 1, 2, 0, 2, 3]);
    }
  });

  it('of an arrow leave out what is between its barbs', () => {
    const triangles = polygonTriangles([0, 0, 0, 2, 2, 0, 0, 1, 0, -2, 2, 0]);
    expect(triangles).toHaveLength(6);
    for (let i = 0; i < 6; i += 3) expect(new Set(triangles.slice(i, i + 3)).has(0)).toBe(true);
    expect(triangles.filter((k) => k === 2)).toHaveLength(2);
  });

  it('are a fan for what has no area, folds back or is not finite', () => {
    const fan = [0, 1, 2, 0, 2, 3];
    expect(polygonTriangles([0, 0, 0, 1, 0, 0, 2, 0, 0, 3, 0, 0])).toEqual(fan);
    expect(polygonTriangles([1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1])).toEqual(fan);
    expect(polygonTriangles([0, 0, 0, NaN, 0, 0, 2, 0, 1, 3, 0, 0])).toEqual(fan);
    expect(polygonTriangles([0, 0, 0, 1, 0, 1, 1, 0, 0, 0, 0, 1])).toEqual(fan);
  });

  it('fill a polygon exactly, each wound as it is, with every corner used (property)', () => {
    fc.assert(
      fc.property(star, frame, fc.boolean(), (reaches, { u, v, far }, isReversed) => {
        const plane = cross(u, v);
        if (length(plane) < 1e-9) return;
        const n = reaches.length;
        const corners = reaches.map((reach, i): Point => {
          const [x, y] = [reach * Math.cos((2 * Math.PI * i) / n), reach * Math.sin((2 * Math.PI * i) / n)];
          return [far + x * u[0] + y * v[0], far + x * u[1] + y * v[1], far + x * u[2] + y * v[2]];
        });
        if (isReversed) corners.reverse();
        const triangles = polygonTriangles(corners.flat());
        const whole = normalOf(corners);
        let sum = 0;
        for (let i = 0; i < triangles.length; i += 3) {
          const [a, b, c] = triangles.slice(i, i + 3).map((k) => corners[k]);
          const part = cross(minus(b, a), minus(c, a));
          // Rounding grows with the distance from the origin.
          expect(dot(part, whole) / length(whole)).toBeGreaterThan(-1e-6 * (1 + far));
          sum += length(part);
        }
        expect(Math.abs(sum / length(whole) - 1)).toBeLessThan(1e-6 * (1 + far / 100));
        expect(triangles).toHaveLength((n - 2) * 3);
        expect(new Set(triangles).size).toBe(n);
      }),
      { numRuns: 500 },
    );
  });

  it('come as they are, in order, for a triangle', () => {
    expect(polygonTriangles(cornersOf([0, 0, 0, 1, 0, 0, 0, 1, 0]).flat())).toEqual([0, 1, 2]);
  });
});
