import type { Group, Operation } from '@stravel/core';
import { StratumDocument } from '../../../document/stratum-document';
import {
  daysBetween,
  deleteGroup,
  groupsUnder,
  makeFromTemplate,
  memberCounts,
  membersOf,
  putIntoGroup,
  templateOf,
} from './group-edits';
import { guardsOf } from '../editing/guards';
import { groupRows } from './groups-desk';

const group = (id: string, parent: string | null, guard = ''): Group => ({
  id,
  name: id.toUpperCase(),
  parent,
  category: 'cat',
  colour: 'kiln',
  switchedOff: false,
  guard,
  aside: null,
});
let document: StratumDocument;
const apply = (operations: readonly Operation[]) => document.apply(operations);

beforeEach(() => {
  document = new StratumDocument('st');
  const add = (kind: 'group' | 'marker' | 'placement', item: { id: string }): Operation => ({
    document: 'st',
    kind,
    id: item.id,
    field: null,
    before: null,
    after: item as never,
  });
  const placement = (id: string, of?: string) => ({
    id,
    piece: 'p',
    position: [0, 0, 0],
    turn: [0, 0, 0],
    scale: [1, 1, 1],
    ...(of ? { group: of } : {}),
  });
  apply([
    ...[group('a', null), group('b', 'a', 'keep it'), group('c', null)].map((one) => add('group', one)),
    add('marker', { id: 'm', kind: 'exit', position: [0, 0, 0], turn: 0, group: 'b' } as never),
    add('placement', placement('p', 'a') as never),
    add('placement', placement('q') as never),
  ]);
});

describe('groups of a stratum', () => {
  it('count and gather what stands in them, placements too', () => {
    expect([...memberCounts(document)]).toEqual([
      ['a', 1],
      ['b', 1],
    ]);
    expect(membersOf(document, groupsUnder(document.tables.group, 'a')).map(({ item }) => item.id)).toEqual(['p', 'm']);
    const rows = groupRows(document, { hiddenGroups: ['b'], lockedGroups: [], soloed: 'a', activeGroup: 'c' });
    expect(
      rows.map(({ group: { id }, depth, count, hidden, soloed, active }) => [id, depth, count, hidden, soloed, active]),
    ).toEqual([
      ['a', 0, 2, false, true, false],
      ['b', 1, 1, true, false, false],
      ['c', 0, 0, false, false, true],
    ]);
  });

  it('take things in and let them go; those of other strata stay', () => {
    apply(
      putIntoGroup(
        document,
        [
          { stratum: 'st', kind: 'placement', id: 'q' },
          { stratum: 'other', kind: 'placement', id: 'p' },
        ],
        'c',
      ),
    );
    expect([document.tables.placement.get('q')?.group, document.tables.placement.get('p')?.group]).toEqual(['c', 'a']);
    apply(putIntoGroup(document, [{ stratum: 'st', kind: 'placement', id: 'q' }], null));
    expect(document.tables.placement.get('q')).toEqual({
      id: 'q',
      piece: 'p',
      position: [0, 0, 0],
      turn: [0, 0, 0],
      scale: [1, 1, 1],
    });
  });

  it('go alone, and what stood in them stands where they stood; or go with everything', () => {
    apply(deleteGroup(document, 'a', false));
    expect([
      document.tables.group.get('b')?.parent,
      document.tables.placement.get('p')?.group,
      document.tables.marker.get('m')?.group,
    ]).toEqual([null, undefined, 'b']);
    apply(deleteGroup(document, 'b', true));
    expect([[...document.tables.group.keys()], document.tables.marker.size, document.tables.placement.size]).toEqual([
      ['c'],
      0,
      2,
    ]);
  });

  it('say why they are guarded, from the inmost out', () => {
    expect(guardsOf(document, ['b', 'a', null])).toEqual(['B: keep it']);
    expect(guardsOf(document, ['c'])).toEqual([]);
  });

  it('become a template and are made of one, nested as before', () => {
    const template = templateOf(document.tables.group, 'a', 'Room');
    expect(template).toEqual({
      name: 'Room',
      parts: [
        { name: 'A', parent: null, category: 'cat', colour: 'kiln' },
        { name: 'B', parent: 0, category: 'cat', colour: 'kiln' },
      ],
    });
    const [outer, inner] = makeFromTemplate('st', template).map(({ after }) => after as unknown as Group);
    expect([outer.parent, inner.parent === outer.id, inner.guard]).toEqual([null, true, '']);
  });

  it('know how long they have been parked', () => {
    expect(daysBetween('2026-02-27', '2026-03-02')).toBe(3);
  });
});
