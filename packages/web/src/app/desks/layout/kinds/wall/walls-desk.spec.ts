import { TestBed } from '@angular/core/testing';
import { blocksOfWall, type PlanPoint, type Wall } from '@stravel/core';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from '../../testing/layout-bed';
import { drawnWall } from './desk';
import { wallGrips } from './wall-grips';
import { WallsDesk } from './walls-desk';

const ROOM: Wall = {
  id: 'room',
  name: 'room',
  corners: [
    [0, 0],
    [6, 0],
    [6, 4],
    [0, 4],
  ].map(([x, z], i) => ({ id: `c${i}`, position: [x, z] as PlanPoint })),
  closed: true,
  baseMetres: 0,
  heightMetres: 3,
  thicknessMetres: 0.5,
  openings: [{ id: 'o', corner: 'c0', offsetMetres: 3, widthMetres: 1, sillMetres: 0, headMetres: 2 }],
  floorMetres: 0.2,
  ceilingMetres: 0.2,
  sight: 'hides',
  material: 'brick',
};

function bedOf(walls: readonly Wall[], options: LayoutBedOptions = {}): LayoutBed & { walls: WallsDesk } {
  const bed = layoutBed({ content: { wall: walls }, ...options });
  bed.desk.select(walls.map(({ id }) => ({ stratum: 'st', kind: 'wall', id })));
  return { ...bed, walls: TestBed.inject(WallsDesk) };
}
const room = ({ document }: LayoutBed): Wall | undefined => document.item('wall', 'room');

describe('what is done with walls', () => {
  it('draws a room by a click on its first corner, and an open wall by Enter', async () => {
    const bed = bedOf([]);
    bed.set({ tool: 'wall', snapMetres: 0.5 });
    const corners: PlanPoint[] = [
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ];
    const click = ([x, z]: PlanPoint): void => bed.drag(x, z, x, z);
    [...corners, corners[0]].forEach(click);
    await bed.settled();
    corners.slice(0, 3).forEach(click);
    bed.tools.finish();
    await bed.settled();
    expect(
      [...bed.document.itemsOf('wall')].map(({ closed, corners: { length }, floorMetres }) => [
        closed,
        length,
        floorMetres,
      ]),
    ).toEqual([
      [true, 4, 0.2],
      [false, 3, 0],
    ]);
    expect(
      drawnWall(
        bed.desk.state(),
        0,
        [
          [1, 1],
          [1, 1],
        ],
        false,
      ),
    ).toBeUndefined();
  });

  it('puts a door into the wall that is near, in steps, and nowhere else', async () => {
    const bed = bedOf([{ ...ROOM, openings: [] }]);
    bed.set({ tool: 'door' });
    bed.drag(3, 2, 3, 2);
    await bed.settled();
    expect(bed.commits).toEqual([]);
    bed.drag(6.1, 1.234, 6.1, 1.234);
    await bed.settled();
    expect(
      room(bed)?.openings.map(({ corner, offsetMetres, sillMetres }) => [corner, offsetMetres, sillMetres]),
    ).toEqual([['c1', 1.25, 0]]);
    bed.store.dispatch({ type: '[Layout] Stratum Locked', id: 'st' });
    bed.drag(6.1, 3, 6.1, 3);
    await bed.settled();
    expect(room(bed)?.openings).toHaveLength(1);
  });

  it('drags an opening along the wall and around its corners, and a corner anywhere', async () => {
    const bed = bedOf([ROOM]);
    expect(wallGrips(ROOM).map(({ at }) => at)).toEqual([
      [3, 0],
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ]);
    bed.set({ tool: 'select', snapMetres: 0.5 });
    bed.drag(3, 0, 6.2, 2);
    await bed.settled();
    expect(room(bed)?.openings[0]).toMatchObject({ corner: 'c1', offsetMetres: 2 });
    bed.drag(0, 4, -1, 5);
    await bed.settled();
    expect(room(bed)?.corners[3].position).toEqual([-1, 5]);
    bed.drag(0, 0, 0, 0);
    await bed.settled();
    expect(bed.commits.map(({ label }) => label)).toEqual(['opening of a wall', 'move a corner']);
  });

  it('opens a ring without what was in the segment that goes, and refuses a wall of one corner', async () => {
    const last = { ...ROOM.openings[0], id: 'p', corner: 'c3', offsetMetres: 2 };
    const bed = bedOf([{ ...ROOM, openings: [...ROOM.openings, last] }]);
    await bed.walls.closeOrOpen();
    expect(room(bed)).toMatchObject({ closed: false, openings: [{ id: 'o' }] });
    const one = (): NonNullable<ReturnType<typeof bed.desk.oneOf<'wall'>>> => {
      const found = bed.desk.oneOf('wall');
      if (!found) throw new Error('no wall is selected');
      return found;
    };
    await bed.walls.removeCorner(one(), 'c0');
    await bed.walls.removeCorner(one(), 'c1');
    await bed.walls.removeCorner(one(), 'c2');
    expect(room(bed)?.corners.map(({ id }) => id)).toEqual(['c2', 'c3']);
    expect(bed.notices).toEqual([expect.stringContaining('needs two corners')]);
  });

  it('turns walls into the blocks that they were', async () => {
    const bed = bedOf([ROOM]);
    await bed.walls.detach();
    expect(room(bed)).toBeUndefined();
    const planes = (blocks: Iterable<{ readonly planes: unknown }>): string[] =>
      [...blocks].map((block) => JSON.stringify(block.planes)).sort();
    expect(planes(bed.document.itemsOf('block'))).toEqual(planes(blocksOfWall(ROOM)));
    expect(bed.desk.selected()).toHaveLength(blocksOfWall(ROOM).length);
  });
});
