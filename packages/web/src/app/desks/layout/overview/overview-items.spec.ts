import type { Group, Item, ItemKind, Operation } from '@stravel/core';
import { StratumDocument } from '../../../document/stratum-document';
import { itemsOfSorts, overviewSorts, placeWords } from './overview-items';

const group = (id: string, category: string, parent: string | null = null, aside: Group['aside'] = null): Group => ({
  id,
  name: id,
  parent,
  category,
  colour: 'none',
  switchedOff: false,
  guard: '',
  aside,
});
const marker = (id: string, x: number, of?: string): Item => ({
  id,
  kind: 'exit',
  position: [x, 0, 2],
  turn: 0,
  ...(of ? { group: of } : {}),
});
const document = new StratumDocument('s');
const add = (kind: ItemKind, item: Item): Operation => ({
  document: 's',
  kind,
  id: item.id,
  field: null,
  before: null,
  after: item as never,
});
document.apply([
  add('group', group('a', 'doors')),
  add('group', group('b', 'look', 'a')),
  add('group', group('c', 'doors', null, { reason: 'old', since: '2026-01-01' })),
  add('marker', marker('m', 1, 'b')),
  add('marker', marker('n', 5)),
  add('marker', marker('o', 7, 'c')),
]);

describe('the overview', () => {
  it('counts categories with the groups around, and kinds; what is parked is left out', () => {
    expect(overviewSorts([document])).toEqual({
      categories: [
        { key: 'category doors', name: 'doors', count: 1 },
        { key: 'category look', name: 'look', count: 1 },
      ],
      kinds: [{ key: 'kind marker', name: 'marker', count: 2 }],
    });
  });

  it('takes each thing once, whatever it belongs to', () => {
    expect(
      itemsOfSorts([document], new Set(['category doors', 'category look'])).map(({ ref, x, z }) => [ref.id, x, z]),
    ).toEqual([['m', 1, 2]]);
    expect(itemsOfSorts([document], new Set(['kind marker'])).map(({ ref }) => ref.id)).toEqual(['m', 'n']);
  });

  it('says where a region lies', () => {
    const all = { low: [0, 0], high: [90, 90] } as const;
    expect([
      placeWords([0, 0], [10, 10], all),
      placeWords([40, 40], [50, 50], all),
      placeWords([80, 40], [90, 50], all),
      placeWords([0, 80], [20, 90], all),
    ]).toEqual(['north-west', 'middle', 'east', 'south-west']);
  });
});
