import { TestBed } from '@angular/core/testing';
import { layoutBed } from '../../testing/layout-bed';
import { MasksDesk } from './masks-desk';
import { solidMask } from './new-mask';

describe('painting a mask', () => {
  it('goes on after a stroke that failed, and says what failed', async () => {
    let strokes = 0;
    const bed = layoutBed({
      content: { mask: [{ ...solidMask([0, 0], [8, 8], 0, 8), id: 'm' }] },
      compute: () =>
        ({
          result: ++strokes === 1 ? Promise.reject(new Error('the worker ended')) : Promise.resolve({ '0-0': 'x' }),
        }) as never,
    });
    bed.desk.select([{ stratum: 'st', kind: 'mask', id: 'm' }]);
    const masks = TestBed.inject(MasksDesk);
    const points = [[1, 1] as const];
    await Promise.all([masks.draw(points, [1, 1], [1, 1], 0), masks.draw(points, [1, 1], [1, 1], 0)]);
    await masks.draw(points, [1, 1], [1, 1], 0);
    expect(bed.notices).toEqual(['The stroke was not painted. the worker ended']);
    expect(bed.commits.map(({ label, operations }) => [label, ...operations.map(({ field }) => field)])).toEqual([
      ['open ground', 'tiles.0-0'],
      ['open ground', 'tiles.0-0'],
    ]);
  });
});
