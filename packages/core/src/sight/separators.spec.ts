import fc from 'fast-check';
import { cutWindow, newWindow, type Window } from './clip-window';
import { cutBySeparators } from './separators';

type Point = readonly [number, number, number];

const windowOf = (points: readonly Point[]): Window => ({
  corners: Float64Array.from(points.flat()),
  count: points.length,
});
const pointsOf = ({ corners, count }: Window): Point[] =>
  Array.from({ length: count }, (_unused, i): Point => [corners[i * 3], corners[i * 3 + 1], corners[i * 3 + 2]]);
const rectangle = (x: number, y0: number, z0: number, y1: number, z1: number): Window =>
  windowOf([
    [x, y0, z0],
    [x, y1, z0],
    [x, y1, z1],
    [x, y0, z1],
  ]);

/** Whether a point of the plane x lies in a convex window of that plane, with some slack. */
function holds(window: Window, y: number, z: number, slack: number): boolean {
  const points = pointsOf(window);
  let seen = 0;
  for (let i = 0; i < points.length; i++) {
    const [, ay, az] = points[i];
    const [, by, bz] = points[(i + 1) % points.length];
    const length = Math.hypot(by - ay, bz - az);
    if (length < 1e-9) continue;
    const side = ((by - ay) * (z - az) - (bz - az) * (y - ay)) / length;
    if (side > slack) seen |= 1;
    if (side < -slack) seen |= 2;
  }
  return seen !== 3;
}

describe('windows', () => {
  it('are cut to one side of a plane, by hand', () => {
    const square = rectangle(0, 0, 0, 2, 2);
    const half = cutWindow(square, newWindow(), 0, 1, 0, 1, 0);
    expect(half && pointsOf(half).map(([, y]) => y)).toEqual([1, 2, 2, 1]);
    expect(cutWindow(square, newWindow(), 0, 1, 0, -5, 0)).toBe(square);
    expect(cutWindow(square, newWindow(), 0, 1, 0, 5, 0)).toBeUndefined();
    // Slack keeps what lies just beyond.
    expect(cutWindow(square, newWindow(), 0, 1, 0, 2.00005, 1e-4)).toBeDefined();
  });
});

describe('separators', () => {
  const coordinate = fc.double({ min: -4, max: 4, noNaN: true });
  const size = fc.double({ min: 0.2, max: 3, noNaN: true });
  const share = fc.double({ min: 0, max: 1, noNaN: true });

  it('leave the shadow of one rectangle through another, by hand', () => {
    // From a 2 m wide source through a slit of 1 m half-way, the target is seen 4 m wide.
    const left = cutBySeparators(
      rectangle(0, -1, -1, 1, 1),
      rectangle(1, -0.5, -0.5, 0.5, 0.5),
      rectangle(2, -9, -9, 9, 9),
      [newWindow(), newWindow()],
      0,
    );
    expect(left).toBeDefined();
    const ys = pointsOf(left as Window).map(([, y]) => y);
    expect([Math.min(...ys), Math.max(...ys)]).toEqual([expect.closeTo(-2, 9), expect.closeTo(2, 9)]);
  });

  it('never cut off a point that some line through source and pass comes to', () => {
    fc.assert(
      fc.property(
        fc.tuple(coordinate, coordinate, size, size),
        fc.tuple(coordinate, coordinate, size, size),
        fc.array(fc.tuple(share, share, share, share), { minLength: 30, maxLength: 30 }),
        ([sy, sz, sw, sh], [py, pz, pw, ph], lines) => {
          const source = rectangle(0, sy, sz, sy + sw, sz + sh);
          const pass = rectangle(1, py, pz, py + pw, pz + ph);
          const target = rectangle(3, -60, -60, 60, 60);
          const rest = cutBySeparators(source, pass, target, [newWindow(), newWindow()], 1e-4);
          for (const [a, b, c, d] of lines) {
            const from: Point = [0, sy + a * sw, sz + b * sh];
            const through: Point = [1, py + c * pw, pz + d * ph];
            const y = from[1] + (through[1] - from[1]) * 3;
            const z = from[2] + (through[2] - from[2]) * 3;
            if (Math.abs(y) > 60 || Math.abs(z) > 60) continue;
            expect(rest !== undefined && holds(rest, y, z, 1e-6)).toBe(true);
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it('are as tight as trying every edge with every corner', () => {
    fc.assert(
      fc.property(
        fc.tuple(coordinate, coordinate, size, size),
        fc.tuple(coordinate, coordinate, size, size),
        ([sy, sz, sw, sh], [py, pz, pw, ph]) => {
          const source = rectangle(0, sy, sz, sy + sw, sz + sh);
          const pass = rectangle(1, py, pz, py + pw, pz + ph);
          const target = rectangle(3, -60, -60, 60, 60);
          const rest = cutBySeparators(source, pass, target, [newWindow(), newWindow()], 0);
          // Of two rectangles with the same axes the shadow is known: each side on its own.
          const shadow = (s0: number, s1: number, p0: number, p1: number): [number, number] => [
            s1 + (p0 - s1) * 3,
            s0 + (p1 - s0) * 3,
          ];
          const [y0, y1] = shadow(sy, sy + sw, py, py + pw);
          const [z0, z1] = shadow(sz, sz + sh, pz, pz + ph);
          const points = rest ? pointsOf(rest) : [];
          const clamp = (v: number): number => Math.max(-60, Math.min(60, v));
          expect(Math.min(...points.map(([, y]) => y))).toBeCloseTo(clamp(y0), 5);
          expect(Math.max(...points.map(([, y]) => y))).toBeCloseTo(clamp(y1), 5);
          expect(Math.min(...points.map(([, , z]) => z))).toBeCloseTo(clamp(z0), 5);
          expect(Math.max(...points.map(([, , z]) => z))).toBeCloseTo(clamp(z1), 5);
        },
      ),
      { numRuns: 200 },
    );
  });
});
