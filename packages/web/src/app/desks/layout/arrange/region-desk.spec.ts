import { TestBed } from '@angular/core/testing';
import type { Marker, PlanPoint } from '@stravel/core';
import { layoutActions } from '../store/layout-store';
import { layoutBed, type LayoutBedOptions } from '../testing/layout-bed';
import { pathThrough } from '../testing/placed';
import { RegionDesk } from './region-desk';

const at = (id: string, x: number, y: number, group?: string): Marker => ({
  id,
  kind: 'exit',
  position: [x, y, 1],
  turn: 0,
  ...(group ? { group } : {}),
});
const GROUP = { id: 'g', name: 'crew', order: 'a0' } as never;
const FROM: PlanPoint = [5, 4];
const TO: PlanPoint = [0, -1];

/** A region over 0..5 by -1..4, drawn from its far corner. */
async function region(answers: LayoutBedOptions['answers'], isGroupLocked = false) {
  const bed = layoutBed({
    content: {
      marker: [at('low', 1, 0), at('high', 2, 9), at('out', 6, 0), at('held', 3, 0, 'g')],
      group: [GROUP],
      path: [pathThrough('polyline', 4, 8)],
    },
    answers,
  });
  bed.desk.plate.update(
    (plate) =>
      plate && {
        ...plate,
        item: (_stratum, kind, id) => {
          const found = kind === 'marker' ? bed.document.item('marker', id) : undefined;
          return found && ({ bounds: { min: found.position, max: found.position } } as never);
        },
      },
  );
  if (isGroupLocked) bed.store.dispatch(layoutActions.groupLocked({ id: 'g' }));
  await TestBed.inject(RegionDesk).move(FROM, TO);
  return {
    ...bed,
    x: () => ['low', 'high', 'out', 'held'].map((id) => bed.document.item('marker', id)?.position[0]),
    knots: () => bed.document.item('path', 'way')?.knots.map(({ position: [x] }) => x),
  };
}

describe('moving what stands in a region', () => {
  it('takes all heights, and of a path the knots within', async () => {
    const bed = await region([{ x: 10, y: 0, z: 0, heights: 'all' }]);
    expect([bed.x(), bed.knots()]).toEqual([
      [11, 12, 6, 13],
      [14, 8],
    ]);
    expect(bed.commits.map(({ label }) => label)).toEqual(['move a region']);
  });

  it('takes the heights solo when that is chosen', async () => {
    const bed = await region([{ x: 10, y: 0, z: 0, heights: 'shown' }]);
    expect(bed.x()).toEqual([11, 2, 6, 13]);
  });

  it('leaves what is locked, and says so', async () => {
    const bed = await region([{ x: 10, y: 0, z: 0, heights: 'all' }], true);
    expect([bed.x(), bed.notices]).toEqual([[11, 12, 6, 3], ['1 object in the region is locked and did not move.']]);
  });

  it('changes nothing when it is left', async () => {
    const bed = await region([undefined]);
    expect([bed.commits, bed.asked]).toEqual([[], ['Move a region']]);
  });
});
