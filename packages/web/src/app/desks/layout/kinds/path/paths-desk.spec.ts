import { TestBed } from '@angular/core/testing';
import type { Path } from '@stravel/core';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from '../../testing/layout-bed';
import { pathThrough } from '../../testing/placed';
import { PathsDesk } from './paths-desk';

function bedOf(paths: readonly Path[], options: LayoutBedOptions = {}): LayoutBed & { paths: PathsDesk } {
  const bed = layoutBed({ content: { path: paths }, ...options });
  bed.desk.select(paths.map(({ id }) => ({ stratum: 'st', kind: 'path', id })));
  return { ...bed, paths: TestBed.inject(PathsDesk) };
}
const xs = ({ document }: LayoutBed): (number[] | undefined)[] =>
  [...document.itemsOf('path')].map(({ knots }) => knots.map(({ position }) => position[0]));

describe('what is done with paths', () => {
  it('reverses, closes and smoothes the one that is selected', async () => {
    const bed = bedOf([pathThrough('polyline', 0, 4, 9)]);
    await bed.paths.reverse();
    await bed.paths.closeOrOpen();
    await bed.paths.changeForm();
    expect(xs(bed)).toEqual([[9, 4, 0]]);
    expect(bed.document.item('path', 'way')).toMatchObject({ closed: true, form: 'curve' });
    expect(bed.commits.map(({ label }) => label)).toEqual(['reverse a path', 'close a path', 'form of a path']);
  });

  it('spaces knots evenly and says when they are too many', async () => {
    const bed = bedOf([pathThrough('polyline', 0, 9)], {
      answers: [
        { spacing: 0.001, most: 10 },
        { spacing: 3, most: 10 },
      ],
    });
    await bed.paths.resample();
    expect([bed.commits, bed.notices.length]).toEqual([[], 1]);
    await bed.paths.resample();
    expect(xs(bed)).toEqual([[0, 3, 6, 9]]);
  });

  it('offsets to the right of where it leads', async () => {
    const bed = bedOf([pathThrough('polyline', 0, 9)], { answers: [{ metres: 2 }] });
    await bed.paths.offset();
    expect(bed.document.item('path', 'way')?.knots.map(({ position }) => position[2])).toEqual([2, 2]);
  });

  it('joins two into the first', async () => {
    const bed = bedOf([pathThrough('polyline', 0, 4), { ...pathThrough('polyline', 5, 9), id: 'on' }]);
    await bed.paths.join();
    expect(xs(bed)).toEqual([[0, 4, 5, 9]]);
  });

  it('shades the plan until it is asked again, and not without anything in the level', async () => {
    const shade = { columns: 1, rows: 1 };
    const box = { stratum: 'st', kind: 'path', id: 'way', bounds: { min: [0, 0, 0], max: [9, 1, 1] } } as const;
    const bed = bedOf([pathThrough('polyline', 0, 9)], {
      compute: () => ({ result: Promise.resolve(shade) }) as never,
      plate: { everything: () => [box] },
    });
    await bed.paths.flipShade();
    expect(bed.paths.shade()?.shade).toBe(shade);
    await bed.paths.flipShade();
    expect(bed.paths.shade()).toBeUndefined();
  });
});
