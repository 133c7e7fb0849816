import { createRunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import type { Path } from '../../model/level-path';
import { distanceShade } from './distance-shade';

const path = (...points: readonly (readonly [number, number, number])[]): Pick<Path, 'form' | 'closed' | 'knots'> => ({
  form: 'polyline',
  closed: false,
  knots: points.map((position, i) => ({ id: `k${i}`, position, widthMetres: 1, tags: [], handle: null })),
});

describe('the distance of a plan from a path', () => {
  it('is measured from above, from the middle of each cell', () => {
    const shade = distanceShade(
      { path: path([0, 50, 0], [128, -7, 0]), low: [0, 0], high: [128, 64] },
      createRunContext(),
    );
    expect([shade.columns, shade.rows, shade.cellMetres]).toEqual([128, 64, 1]);
    expect([shade.metres[0], shade.metres[127], shade.metres[128 * 10 + 64]]).toEqual([0.5, 0.5, 10.5]);
    expect(shade.mostMetres).toBe(63.5);
  });

  it('refuses an area that encloses nothing, and stops when it is told to', () => {
    const input = { path: path([0, 0, 0], [1, 0, 0]), low: [0, 0] as const, high: [0, 5] as const };
    expect(() => distanceShade(input, createRunContext())).toThrow(
      expect.objectContaining({ code: 'SHADE_AREA' }) as Error,
    );
    expect(() => distanceShade({ ...input, high: [5, 5] }, createRunContext({ cancel: { aborted: true } }))).toThrow(
      CoreError,
    );
  });
});
