import { TestBed } from '@angular/core/testing';
import type { PickItem } from '../../../plate/pick-item';
import { layoutBed } from '../testing/layout-bed';
import { BLOCK } from '../testing/placed';
import { SelectDesk } from './select-desk';

const blocks = [
  { ...BLOCK, id: 'a' },
  { ...BLOCK, id: 'b' },
  { ...BLOCK, id: 'c', material: 'slate' },
];
const everything = blocks.map(({ id }): PickItem => ({
  stratum: 'st',
  kind: 'block',
  id,
  bounds: { min: [0, 0, 0], max: [1, 1, 1] },
}));

describe('selecting by what things are', () => {
  it('takes what is like one thing, all but some, and what was kept as far as it is there', async () => {
    localStorage.clear();
    const bed = layoutBed({
      content: { block: blocks },
      plate: { everything: () => everything },
      answers: [{ name: 'bricks' }],
    });
    const select = TestBed.inject(SelectDesk);
    const ids = () => bed.desk.selected().map(({ item }) => item.id);
    bed.desk.select([{ stratum: 'st', kind: 'block', id: 'a' }]);
    select.similar();
    expect(ids()).toEqual(['a', 'b']);
    await select.keep();
    select.invert();
    expect(ids()).toEqual(['c']);
    bed.document.fill({ ...bed.document.content(), block: blocks.slice(1) });
    select.take('bricks');
    expect([ids(), bed.notices, select.names()]).toEqual([['b'], ['1 of 2 are no longer in the level.'], ['bricks']]);
  });
});
