import { TestBed } from '@angular/core/testing';
import type { Marker, Vector3 } from '@stravel/core';
import type { PickItem } from '../../../plate/pick-item';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from '../testing/layout-bed';
import { BLOCK, CRATE, PLACEMENT } from '../testing/placed';
import { ReplacePiece } from '../kinds/placement/replace-piece';
import { ArrangeDesk } from './arrange-desk';

const marker = (id: string, position: Vector3): Marker => ({ id, kind: 'exit', position, turn: 0 });
const markers = [marker('a', [0, 0, 0]), marker('b', [1, 0, 5]), marker('c', [10, 2, 0])];
/** Boxes of half a metre around markers. */
const plate: LayoutBedOptions['plate'] = {
  item: (stratum, kind, id) => {
    const at = markers.find((one) => one.id === id)?.position;
    return (
      at && ({ stratum, kind, id, bounds: { min: at, max: [at[0] + 1, at[1] + 1, at[2] + 1] } } satisfies PickItem)
    );
  },
  surfaceBelow: ([x]) => (x > 5 ? 0.5 : undefined),
};

function arranged(options: LayoutBedOptions): LayoutBed & { readonly arrange: ArrangeDesk } {
  const bed = layoutBed({ content: { marker: markers }, plate, ...options });
  bed.desk.select(markers.map(({ id }) => ({ stratum: 'st', kind: 'marker', id })));
  return { ...bed, arrange: TestBed.inject(ArrangeDesk) };
}
const places = ({ document }: LayoutBed): Vector3[] => [...document.itemsOf('marker')].map(({ position }) => position);

describe('arranging', () => {
  it('moves all by exact amounts, and nothing when it is left', async () => {
    const bed = arranged({ answers: [{ x: 1, y: 0.25, z: -1 }, undefined] });
    await bed.arrange.moveBy();
    await bed.arrange.moveBy();
    expect(places(bed)).toEqual([
      [1, 0.25, -1],
      [2, 0.25, 4],
      [11, 2.25, -1],
    ]);
    expect(bed.commits).toHaveLength(1);
  });

  it('aligns to the outermost, and spaces evenly between the outermost', async () => {
    const bed = arranged({ answers: [{ axis: '0', side: 'low' }, { axis: '0' }] });
    await bed.arrange.align();
    expect(places(bed).map(([x]) => x)).toEqual([0, 0, 0]);
    const spaced = bed.commits.length;
    await bed.arrange.distribute();
    // The boxes that the plate tells are those of before: 1 m wide at 0, 1 and 10, so that gaps of 4 put the middle one at 5.
    expect(bed.commits[spaced].operations.map(({ id, after }) => [id, after])).toEqual([['b', [4, 0, 5]]]);
  });

  it('copies in a row and selects the copies', async () => {
    const bed = arranged({ answers: [{ by: 'step', copies: 2, x: 3, y: 0, z: 0 }] });
    await bed.arrange.array();
    expect(places(bed)).toHaveLength(9);
    expect(bed.desk.selected()).toHaveLength(6);
    expect(
      places(bed)
        .slice(3)
        .map(([x]) => x),
    ).toEqual([3, 4, 13, 6, 7, 16]);
  });

  it('mirrors across an upright plane', async () => {
    const bed = arranged({ answers: [{ axis: 'x', at: 5 }] });
    await bed.arrange.mirror();
    expect(places(bed).map(([x]) => x)).toEqual([10, 9, 0]);
  });

  it('drops what has something below it and says what has nothing', async () => {
    const bed = arranged({});
    await bed.arrange.drop();
    expect(places(bed).map(([, y]) => y)).toEqual([0, 0, 0.5]);
    expect(bed.notices).toEqual(['2 of 3 have nothing below them and stay where they are.']);
  });

  it('varies the same again by the same seed', async () => {
    const answer = { turn: 90, scale: 0, offset: 1, seed: 'loom' };
    const bed = arranged({ answers: [answer] });
    await bed.arrange.vary();
    const once = places(bed);
    TestBed.resetTestingModule();
    const again = arranged({ answers: [answer] });
    await again.arrange.vary();
    expect(places(again)).toEqual(once);
    expect(once).not.toEqual(markers.map(({ position }) => position));
    expect([...again.document.itemsOf('marker')].some(({ turn }) => turn !== 0)).toBe(true);
  });

  it('replaces the piece of placements alone', async () => {
    const cart = { ...CRATE, id: 'cart', name: 'cart' };
    const bed = layoutBed({
      content: { placement: [PLACEMENT, { ...PLACEMENT, id: 'q', piece: 'cart' }], block: [BLOCK] },
      tables: { piece: { crate: CRATE, cart } },
      answers: [{ piece: 'cart' }],
    });
    bed.desk.select(['p', 'q'].map((id) => ({ stratum: 'st', kind: 'placement', id })));
    await TestBed.inject(ReplacePiece).replace();
    expect([...bed.document.itemsOf('placement')].map(({ piece }) => piece)).toEqual(['cart', 'cart']);
    expect(bed.commits[0].operations).toHaveLength(1);
  });
});
