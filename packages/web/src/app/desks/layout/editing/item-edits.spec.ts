import type { Operation } from '@stravel/core';
import { BLOCK, PLACEMENT } from '../testing/placed';
import { deleteItems, duplicateItems, moveItems, turnItems } from './item-edits';
import { changedItem, isGrouped, ofKind, oneOf, placedItem } from './placed-item';

const block = placedItem('st', 'block', BLOCK);
const placement = placedItem('st', 'placement', PLACEMENT);
const values = (operations: readonly Operation[]) => operations.map(({ id, field, after }) => [id, field, after]);

describe('edits of items', () => {
  it('move by exact amounts without drift', () => {
    let one = block;
    for (let i = 0; i < 10; i++) {
      const [{ after }] = moveItems([one], [0.1, 0, 0]);
      [one] = ofKind(
        [placedItem('st', 'block', changedItem('block', one.item, { position: after }) as never)],
        'block',
      );
    }
    expect(one.item.position).toEqual([2, 0, 1]);
  });

  it('turn together about their middle, by hand', () => {
    expect(values(turnItems([block, placement], 90, [2, 1]))).toEqual([
      ['b', 'position', [2, 0, 2]],
      ['b', 'turn', [100, 0, 0]],
      ['p', 'position', [2, 0, 0]],
      ['p', 'turn', [90, 0, 0]],
    ]);
    const turned = placedItem('st', 'block', { ...BLOCK, turn: [170, 0, 0] });
    expect(turnItems([turned], 20, [1, 1])[1].after).toEqual([-170, 0, 0]);
  });

  it('duplicate beside and delete with all they were', () => {
    const { copies, operations } = duplicateItems([block], [0.5, 0, 0.5]);
    expect(operations[0].after).toMatchObject({ position: [1.5, 0, 1.5], name: 'b' });
    expect(copies[0].item.id).not.toBe('b');
    expect(deleteItems([block])[0]).toMatchObject({ field: null, before: BLOCK, after: null });
  });

  it('name kinds as people do, and know which stand in groups', () => {
    expect([oneOf('assembly'), oneOf('tileFloor'), oneOf('block')]).toEqual(['an assembly', 'a tile floor', 'a block']);
    expect([isGrouped('block'), isGrouped('link'), isGrouped('group')]).toEqual([true, false, false]);
  });
});
