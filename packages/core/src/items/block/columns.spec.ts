import fc from 'fast-check';
import type { Block } from '../../model/block';
import { boxPlanes } from '../../geometry/block-solid';
import { blockColumnsOf, blocksOfColumns } from './columns';

const number = fc.oneof(fc.double({ noNaN: true }), fc.constantFrom(-0, 0, 1e-300, 1e300));
const three = fc.tuple(number, number, number);
const word = fc.oneof(fc.string(), fc.constantFrom('wall', 'salt', '', '__proto__', 'a\nb'));
const block: fc.Arbitrary<Block> = fc.record(
  {
    id: word,
    name: word,
    position: three,
    turn: three,
    planes: fc.array(fc.tuple(number, number, number, number), { maxLength: 9 }),
    sight: fc.constantFrom('hides', 'decor'),
    material: word,
    faces: fc.oneof(
      fc.constant(null),
      fc.constant([{ plane: 1, surface: 'tar', tileMetres: [1, 2], offsetMetres: [0, 0] }] as const),
    ),
    group: fc.oneof(fc.constant(null), word),
  },
  { requiredKeys: ['id', 'name', 'position', 'turn', 'planes', 'sight', 'material'] },
);

describe('blocks in columns', () => {
  it('come back as they were, with every bit, and after a copy to another thread', () => {
    fc.assert(
      fc.property(fc.array(block), (blocks) => {
        const columns = blockColumnsOf(blocks);
        expect(blocksOfColumns(columns)).toEqual(blocks);
        expect(blocksOfColumns(structuredClone(columns))).toEqual(blocks);
      }),
    );
  });

  it('hold each word once', () => {
    const wall = (id: string): Block => ({
      id,
      name: 'wall',
      position: [1, 2, 3],
      turn: [0, 0, 0],
      planes: boxPlanes([1, 2, 3]),
      sight: 'decor',
      material: 'salt',
    });
    const { words, indices, numbers } = blockColumnsOf([wall('a'), wall('b')]);
    expect([words, [...indices], numbers.length]).toEqual([['wall', 'salt'], [0, 1, 1, 6, 0, 1, 1, 6], 60]);
  });
});
