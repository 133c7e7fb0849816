import type { Group } from '@stravel/core';
import { ALL_GROUPS, isSeen, unseenGroups } from './unseen-groups';

const group = (id: string, parent: string | null, aside: Group['aside'] = null): [string, Group] => [
  id,
  { id, name: id, parent, category: '', colour: 'none', switchedOff: false, guard: '', aside },
];
const groups = new Map([
  group('a', null),
  group('b', 'a'),
  group('c', null, { reason: 'old', since: '2026-01-01' }),
  group('d', 'c'),
]);
const seen = (hidden: Partial<typeof ALL_GROUPS>) =>
  ['a', 'b', 'c', 'd', undefined].filter((id) =>
    isSeen(id, unseenGroups({ tables: { group: groups } }, { ...ALL_GROUPS, ...hidden })),
  );

describe('groups that are not drawn', () => {
  it('are those parked, those hidden and all in them, or all but one that is solo', () => {
    expect(seen({})).toEqual(['a', 'b', undefined]);
    expect(seen({ hidden: new Set(['a']) })).toEqual([undefined]);
    expect(seen({ alone: 'b' })).toEqual(['b']);
    expect(seen({ alone: 'a' })).toEqual(['a', 'b']);
  });
});
