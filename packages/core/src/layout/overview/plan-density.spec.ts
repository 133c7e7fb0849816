import fc from 'fast-check';
import { createRunContext } from '../../context/run-context';
import { planDensity } from './plan-density';

const density = (points: readonly (readonly [number, number])[], reachMetres: number) =>
  planDensity({ points: Float64Array.from(points.flat()), reachMetres }, createRunContext());
const grid = (columns: number, rows: number, step: number, x0 = 0, z0 = 0): [number, number][] =>
  Array.from({ length: columns * rows }, (_unused, i) => [
    x0 + (i % columns) * step,
    z0 + Math.floor(i / columns) * step,
  ]);

describe('density on the plan', () => {
  it('holds all things: summed over the plan it is their number', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -60, max: 60 }), fc.integer({ min: -60, max: 60 })), {
          minLength: 1,
          maxLength: 60,
        }),
        fc.integer({ min: 4, max: 20 }),
        (points, reach) => {
          const { cells, cellMetres } = density(points, reach);
          const sum = cells.reduce((total, value) => total + value, 0) * ((cellMetres * cellMetres) / 100);
          expect(sum / points.length).toBeCloseTo(1, 1);
        },
      ),
    );
  });

  it('of an even spread has no region that stands out', () => {
    expect(density(grid(20, 20, 5), 15).regions).toEqual([]);
  });

  it('finds a crowd and a gap, and where they are', () => {
    const even = grid(40, 40, 5).filter(([x, z]) => Math.hypot(x - 50, z - 150) > 35);
    const crowd = grid(20, 20, 1, 140, 40);
    const { regions } = density([...even, ...crowd], 12);
    expect(regions.map(({ kind }) => kind)).toEqual(['crowded', 'empty']);
    const middle = (i: number) => [0, 1].map((k) => Math.round((regions[i].low[k] + regions[i].high[k]) / 20) * 10);
    expect([middle(0), middle(1)]).toEqual([
      [150, 50],
      [50, 150],
    ]);
    expect(regions[0].density).toBeGreaterThan(regions[1].density * 10);
  });

  it('takes nothing, one thing and many in one place; names what it cannot take', () => {
    expect(density([], 5).regions).toEqual([]);
    expect(density([[3, 4]], 5).cells.some((value) => value > 0)).toBe(true);
    expect(
      density(
        Array.from({ length: 9 }, () => [1, 1] as const),
        5,
      ).mean,
    ).toBeGreaterThan(0);
    expect(() => density([[NaN, 0]], 5)).toThrow(/finite pairs/);
    expect(() => density([[1, 0]], 0)).toThrow(/a reach above 0, has 2 numbers and 0 m/);
  });

  it('can be cancelled', () => {
    expect(() =>
      planDensity({ points: new Float64Array(4), reachMetres: 1 }, createRunContext({ cancel: { aborted: true } })),
    ).toThrow(expect.objectContaining({ code: 'CANCELLED' }) as Error);
  });
});
