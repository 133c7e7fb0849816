import { TestBed } from '@angular/core/testing';
import { boxPlanes, type Block } from '@stravel/core';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from '../../testing/layout-bed';
import { BLOCK } from '../../testing/placed';
import { sizeOfPlanes } from './block-size';
import { BlocksDesk } from './blocks-desk';

const cube = (id: string, x: number, over: Partial<Block> = {}): Block => ({
  ...BLOCK,
  id,
  name: id,
  position: [x, 0, 0],
  turn: [0, 0, 0],
  planes: boxPlanes([2, 2, 2]),
  ...over,
});

function bedOf(blocks: readonly Block[], answers: LayoutBedOptions['answers']): LayoutBed & { blocks: BlocksDesk } {
  const bed = layoutBed({ content: { block: blocks }, answers });
  bed.desk.select(blocks.map(({ id }) => ({ stratum: 'st', kind: 'block', id })));
  return { ...bed, blocks: TestBed.inject(BlocksDesk) };
}
const sizes = ({ document }: LayoutBed) => [...document.itemsOf('block')].map(({ planes }) => sizeOfPlanes(planes));

describe('what is done with blocks', () => {
  it('cuts in two at a plane, or keeps one part', async () => {
    const bed = bedOf([cube('a', 0)], [{ facing: '1 0 0', x: 0.5, y: 0, z: 0, keep: 'both' }]);
    await bed.blocks.cut();
    expect(sizes(bed).map(([x]) => x)).toEqual([1.5, 0.5]);
  });

  it('joins two that make a convex one, and says why two do not', async () => {
    const bed = bedOf([cube('a', 0), cube('b', 2)], []);
    await bed.blocks.join();
    expect(sizes(bed)).toEqual([[4, 2, 2]]);
    bed.document.fill({ ...bed.document.content(), block: [cube('a', 0), cube('b', 2, { position: [2, 1, 0] })] });
    bed.desk.select(['a', 'b'].map((id) => ({ stratum: 'st', kind: 'block', id })));
    await bed.blocks.join();
    expect([[...bed.document.itemsOf('block')].length, bed.notices.length]).toEqual([2, 1]);
  });

  it('hollows into a wall a face', async () => {
    const bed = bedOf([cube('a', 0)], [{ wall: 0.25 }]);
    await bed.blocks.hollow();
    expect([...bed.document.itemsOf('block')].map(({ name }) => name)).toEqual([1, 2, 3, 4, 5, 6].map((n) => `a ${n}`));
  });

  it('moves a face, gives it a surface of its own and takes that away', async () => {
    const bed = bedOf([cube('a', 0)], [{ face: '0', metres: 1 }, { face: '0', surface: 'slate' }, { face: '0' }]);
    await bed.blocks.moveFace();
    expect(sizes(bed)).toEqual([[3, 2, 2]]);
    await bed.blocks.surface();
    expect(bed.document.item('block', 'a')?.faces).toMatchObject([{ plane: 0, surface: 'slate' }]);
    await bed.blocks.surface();
    expect(bed.document.item('block', 'a')?.faces).toBeUndefined();
  });

  it('takes exact planes, and refuses those that enclose nothing', async () => {
    const bed = bedOf(
      [cube('a', 0)],
      [{ planes: '1 0 0 1' }, { planes: '1 0 0 3; -1 0 0 1; 0 1 0 1; 0 -1 0 1; 0 0 1 1; 0 0 -1 1' }],
    );
    await bed.blocks.planes();
    expect([bed.commits, bed.notices.length]).toEqual([[], 1]);
    await bed.blocks.planes();
    expect(sizes(bed)).toEqual([[4, 2, 2]]);
  });

  it('does nothing with no block', async () => {
    const bed = bedOf([], [{}]);
    await bed.blocks.cut();
    await bed.blocks.hollow();
    await bed.blocks.join();
    await bed.blocks.surface();
    expect([bed.commits, bed.asked]).toEqual([[], []]);
  });
});
