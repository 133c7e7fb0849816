import fc from 'fast-check';
import type { Knot, Path } from '../../model/level-path';
import type { Vector3 } from '../../model/vector';
import { bendOfPiece, lengthOfPiece, norm, pathPieces, pathPoints, velocityOfPiece } from './path-curve';
import { withKnotIds } from './knot-ids';
import { joinedKnots, offsetKnots, resamplePath, reversedKnots } from './path-edits';
import { distancesFromPath, pathFigures } from './path-figures';

const knot = (x: number, z: number, over: Partial<Knot> = {}): Knot => ({
  id: `${x},${z}`,
  position: [x, 0, z],
  widthMetres: 2,
  tags: [],
  handle: null,
  ...over,
});
const path = (knots: readonly Knot[], over: Partial<Path> = {}): Path => ({
  id: 'p',
  name: 'p',
  form: 'polyline',
  closed: false,
  knots,
  ...over,
});
const places = (knots: readonly Knot[]): Vector3[] => knots.map(({ position }) => position);
/** A quarter circle of radius 10 about the origin, as near as one cubic comes: its pull is 0.5523 of the radius. */
const PULL = 5.522847;
const circle = path(
  [
    knot(10, 0, { handle: [0, 0, PULL] }),
    knot(0, 10, { handle: [-PULL, 0, 0] }),
    knot(-10, 0, { handle: [0, 0, -PULL] }),
    knot(0, -10, { handle: [PULL, 0, 0] }),
  ],
  {
    form: 'curve',
    closed: true,
  },
);

/** Length by very many straight steps, as a check on the quadrature. */
function countedLength(one: Path): number {
  const points = pathPoints(one, 4000);
  let sum = 0;
  for (let i = 3; i < points.length; i += 3)
    sum += norm([points[i] - points[i - 3], points[i + 1] - points[i - 2], points[i + 2] - points[i - 1]]);
  return sum;
}

const anyPath = fc
  .record({
    knots: fc.array(
      fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -3, max: 3 }), fc.integer({ min: -40, max: 40 })),
      { minLength: 2, maxLength: 8 },
    ),
    form: fc.constantFrom('polyline' as const, 'curve' as const),
    closed: fc.boolean(),
  })
  .map(({ knots, ...rest }) =>
    path(withKnotIds(knots.map((position) => ({ position, widthMetres: 1, tags: [], handle: null }))), rest),
  );

describe('paths', () => {
  it('measure a line worked out by hand', () => {
    const line = path([knot(0, 0), knot(3, 4), { ...knot(3, 10), position: [3, 3, 8] }]);
    expect(pathFigures(line)).toMatchObject({ lengthMetres: 10, tightestRadiusMetres: 0 });
    expect(pathFigures(line).steepestSlope).toBeCloseTo(0.75, 12);
    expect(pathFigures(path([knot(0, 0), knot(5, 0), knot(9, 0)]))).toEqual({
      lengthMetres: 9,
      steepestSlope: 0,
      tightestRadiusMetres: Infinity,
    });
  });

  it('measure a circle', () => {
    const { lengthMetres, tightestRadiusMetres } = pathFigures(circle);
    expect(lengthMetres / (2 * Math.PI * 10)).toBeCloseTo(1, 3);
    expect(tightestRadiusMetres).toBeCloseTo(10, 0);
    expect(
      distancesFromPath(circle, [
        [0, 0, 0],
        [13, 4, 0],
      ]).map((metres) => Math.round(metres * 100) / 100),
    ).toEqual([10, 5]);
  });

  it('leave out pieces between equal knots, and are refused when there is nothing else', () => {
    expect(pathPieces(path([knot(0, 0), knot(0, 0), knot(1, 0)], { form: 'curve' }))).toHaveLength(1);
    const dot = path([knot(1, 1), knot(1, 1)]);
    expect(pathFigures(dot).lengthMetres).toBe(0);
    expect(pathPoints(dot)).toEqual(Float64Array.of(1, 0, 1));
    expect(() => resamplePath(dot, 1, 10)).toThrow(expect.objectContaining({ code: 'PATH_EMPTY' }) as Error);
    expect(() => resamplePath(path([knot(0, 0), knot(9, 0)]), 0, 10)).toThrow(
      expect.objectContaining({ code: 'PATH_SPACING' }) as Error,
    );
  });

  it('lengths agree with very many straight steps', () => {
    fc.assert(
      fc.property(anyPath, (one) => {
        const length = pathPieces(one).reduce((sum, piece) => sum + lengthOfPiece(piece), 0);
        expect(Math.abs(length - countedLength(one))).toBeLessThanOrEqual(1e-4 * Math.max(1, length));
      }),
      { numRuns: 60 },
    );
  });
});

describe('resampling', () => {
  it('puts knots at equal spacing, keeps widths and tags', () => {
    const line = path([
      knot(0, 0, { widthMetres: 2 }),
      knot(4, 0, { widthMetres: 4, tags: ['gate'] }),
      knot(10, 0, { widthMetres: 4 }),
    ]);
    const knots = resamplePath(line, 2, 100);
    expect(places(knots).map(([x]) => x)).toEqual([0, 2, 4, 6, 8, 10]);
    expect(knots.map(({ widthMetres }) => widthMetres)).toEqual([2, 3, 4, 4, 4, 4]);
    expect(knots.map(({ tags }) => tags.join())).toEqual(['', '', 'gate', '', '', '']);
    expect(places(resamplePath(line, 4, 100)).map(([x]) => x)).toEqual([0, 4, 8, 10]);
  });

  it('is refused over the limit of knots', () => {
    expect(() => resamplePath(path([knot(0, 0), knot(100, 0)]), 1, 100)).toThrow(
      expect.objectContaining({ code: 'PATH_KNOTS', details: { count: 101 } }) as Error,
    );
  });

  it('is exact to a thousandth of the spacing along the arc', () => {
    fc.assert(
      fc.property(anyPath, fc.double({ min: 0.5, max: 7, noNaN: true }), (one, spacing) => {
        const pieces = pathPieces(one);
        const total = pieces.reduce((sum, piece) => sum + lengthOfPiece(piece), 0);
        fc.pre(total > spacing * 2);
        const knots = resamplePath(one, spacing, 10000);
        const points = pathPoints(one, 2000);
        // Walks the fine line and notes how far along it each knot lies.
        let [walked, next] = [0, 1];
        for (let i = 3; i < points.length && next * spacing < total - 1e-3; i += 3) {
          const step = norm([points[i] - points[i - 3], points[i + 1] - points[i - 2], points[i + 2] - points[i - 1]]);
          while (next < knots.length && walked + step >= next * spacing && next * spacing < total - 1e-3) {
            const share = step > 0 ? (next * spacing - walked) / step : 0;
            const at = [0, 1, 2].map((k) => points[i - 3 + k] + share * (points[i + k] - points[i - 3 + k]));
            const off = norm([0, 1, 2].map((k) => at[k] - knots[next].position[k]) as unknown as Vector3);
            expect(off).toBeLessThanOrEqual(0.001 * spacing + 1e-4 * total);
            next++;
          }
          walked += step;
        }
      }),
      { numRuns: 60 },
    );
  });

  it.each([
    ['curve', 21, 10, [0, 10, 20, 21]],
    ['curve', 20.1, 10, [0, 10, 20, 20.1]],
    ['polyline', 5, 10, [0, 5]],
    ['curve', 5, 10, [0, 5]],
    ['curve', 20, 10, [0, 10, 20]],
  ] as const)(
    'of a straight %s of %d m at %d m neither runs back nor has its last knot twice',
    (form, length, spacing, expected) => {
      const knots = resamplePath(path([knot(0, 0), knot(length, 0)], { form }), spacing, 100);
      expect(places(knots).map(([x]) => x)).toEqual(expected);
      expect(pathFigures(path(knots, { form })).lengthMetres).toBeCloseTo(length, 9);
    },
  );

  it('never runs backwards: every piece goes on in the direction of the curve', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 1000, noNaN: true }),
        fc.double({ min: 0.01, max: 300, noNaN: true }),
        (length, spacing) => {
          fc.pre(length / spacing < 2000);
          const knots = resamplePath(path([knot(0, 0), knot(length, 0)], { form: 'curve' }), spacing, 10000);
          const points = pathPoints(path(knots, { form: 'curve' }), 16);
          for (let i = 3; i < points.length; i += 3) expect(points[i]).toBeGreaterThanOrEqual(points[i - 3] - 1e-9);
          expect(new Set(places(knots).map(([x]) => x)).size).toBe(knots.length);
          expect(points[points.length - 3]).toBeCloseTo(length, 5);
        },
      ),
    );
  });

  it('of a short closed path keeps three knots, none twice', () => {
    for (const spacing of [1, 7, 100]) {
      const knots = resamplePath(circle, spacing, 1000);
      expect(knots.length).toBeGreaterThanOrEqual(3);
      expect(new Set(places(knots).map((place) => place.join())).size).toBe(knots.length);
    }
  });
});

describe('slope and radius', () => {
  it('are within 5 % of 10,000 even readings', () => {
    const READINGS = 10000;
    fc.assert(
      fc.property(anyPath, (one) => {
        fc.pre(one.form === 'curve');
        const { steepestSlope, tightestRadiusMetres } = pathFigures(one);
        let [slope, radius] = [0, Infinity];
        for (const piece of pathPieces(one)) {
          for (let i = 0; i <= READINGS; i++) {
            const v = velocityOfPiece(piece, i / READINGS);
            const a = bendOfPiece(piece, i / READINGS);
            const run = Math.hypot(v[0], v[2]);
            if (run > 0 || v[1] !== 0) slope = Math.max(slope, Math.abs(v[1]) / run);
            const cross = norm([v[1] * a[2] - v[2] * a[1], v[2] * a[0] - v[0] * a[2], v[0] * a[1] - v[1] * a[0]]);
            const speed = norm(v);
            if (cross > 1e-12 * speed ** 3) radius = Math.min(radius, speed ** 3 / cross);
          }
        }
        // Never less steep, never less tight than what even readings find.
        expect(steepestSlope).toBeGreaterThanOrEqual(slope * 0.95);
        // Of a straight line the last digits alone bend.
        if (radius < 1e6) expect(tightestRadiusMetres).toBeLessThanOrEqual(radius * 1.05 + 1e-9);
      }),
      { numRuns: 30 },
    );
  });
});

describe('editing paths', () => {
  it('offsets to the right on the plan', () => {
    // Towards +x the right hand is +z.
    expect(places(offsetKnots(path([knot(0, 0), knot(10, 0)]), 3))).toEqual([
      [0, 0, 3],
      [10, 0, 3],
    ]);
  });

  it('reversed twice is as before', () => {
    expect(reversedKnots({ ...circle, knots: reversedKnots(circle) })).toEqual(circle.knots);
  });

  it('keeps the ids of knots that stay, and gives the others free ones', () => {
    const ids = (knots: readonly Knot[]): string[] => knots.map(({ id }) => id);
    const a = path([knot(0, 0, { id: 'a' }), knot(4, 0, { id: 'k0' })]);
    const b = path([knot(5, 0, { id: 'k0' }), knot(9, 0, { id: 'b' })], { id: 'q' });
    expect(ids(joinedKnots(a, b))).toEqual(['a', 'k0', 'k1', 'b']);
    expect(ids(joinedKnots(path([...a.knots].reverse()), b))).toEqual(['a', 'k0', 'k1', 'b']);
    expect(ids(resamplePath(a, 1, 100))).toEqual(['a', 'k1', 'k2', 'k3', 'k0']);
    expect(ids(reversedKnots(a))).toEqual(['k0', 'a']);
    expect(ids(offsetKnots(a, 1))).toEqual(['a', 'k0']);
    fc.assert(
      fc.property(anyPath, fc.double({ min: 0.5, max: 40, noNaN: true }), (one, spacing) => {
        fc.pre(pathPieces(one).length > 0);
        const knots = resamplePath(one, spacing, 10000);
        expect(new Set(ids(knots)).size).toBe(knots.length);
      }),
    );
  });

  it('joins the nearest ends, whichever way round, and makes one knot of two in one place', () => {
    const [a, b] = [path([knot(0, 0), knot(5, 0)]), path([knot(9, 0), knot(5, 0)], { id: 'q' })];
    expect(places(joinedKnots(a, b)).map(([x]) => x)).toEqual([0, 5, 9]);
    expect(places(joinedKnots(a, path([knot(-1, 0), knot(-4, 0)]))).map(([x]) => x)).toEqual([5, 0, -1, -4]);
    expect(() => joinedKnots(a, circle)).toThrow(expect.objectContaining({ code: 'PATH_CLOSED' }) as Error);
  });
});
