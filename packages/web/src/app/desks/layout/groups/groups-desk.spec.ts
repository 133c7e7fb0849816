import { TestBed } from '@angular/core/testing';
import type { CollectionSettings, Group, Marker } from '@stravel/core';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from '../testing/layout-bed';
import { GroupsDesk } from './groups-desk';

const group = (id: string, over: Partial<Group> = {}): Group => ({
  id,
  name: id,
  parent: null,
  category: 'cover',
  colour: 'none',
  switchedOff: false,
  guard: '',
  aside: null,
  ...over,
});
const marker = (id: string, of: string | null): Marker => ({
  id,
  kind: 'exit',
  position: [0, 0, 0],
  turn: 0,
  group: of,
});
const content: LayoutBedOptions['content'] = {
  group: [group('yard'), group('cover', { parent: 'yard' })],
  marker: [marker('a', 'cover'), marker('b', 'yard'), marker('c', null)],
};

function grouped(options: LayoutBedOptions = {}): LayoutBed & { readonly groups: GroupsDesk } {
  const bed = layoutBed({ content, ...options });
  return { ...bed, groups: TestBed.inject(GroupsDesk) };
}
const groupOf = ({ document }: LayoutBed, id: string) => document.tables.marker.get(id)?.group ?? null;

describe('the groups of a stratum', () => {
  it('stand as rows with all that is in them and below', () => {
    const { groups } = grouped();
    expect(groups.rows().map(({ group: { id }, depth, count }) => [id, depth, count])).toEqual([
      ['yard', 0, 2],
      ['cover', 1, 1],
    ]);
  });

  it('are made and changed by what is answered, and one that is left changes nothing', async () => {
    const bed = grouped({
      answers: [{ name: ' Racks ', category: 'props' }, { name: '' }, undefined, { guard: 'no' }],
    });
    await bed.groups.add('');
    await bed.groups.do('yard', 'new inside');
    await bed.groups.do('yard', 'edit');
    await bed.groups.do('yard', 'edit');
    expect(bed.notices).toEqual(['Give it a name.']);
    expect(bed.commits.map(({ label }) => label)).toEqual(['group Racks', 'group yard']);
    const made = [...bed.document.tables.group.values()].find(({ name }) => name === 'Racks');
    expect(made).toMatchObject({ category: 'props', parent: null });
    // What is made next goes into it.
    expect(bed.groups.rows().find(({ active }) => active)?.group.id).toBe(made?.id);
    expect(bed.document.tables.group.get('yard')).toEqual(group('yard', { guard: 'no' }));
  });

  it('take the selection in, give it out, and are selected with all below', async () => {
    const bed = grouped();
    bed.desk.select([{ stratum: 'st', kind: 'marker', id: 'c' }]);
    await bed.groups.do('cover', 'add selection');
    expect(groupOf(bed, 'c')).toBe('cover');
    await bed.groups.ungroup();
    expect(groupOf(bed, 'c')).toBeNull();
    await bed.groups.do('yard', 'select');
    expect(new Set(bed.desk.selected().map(({ item }) => item.id))).toEqual(new Set(['a', 'b']));
  });

  it('are parked for a reason alone, listed with their things, and brought back', async () => {
    const bed = grouped({ answers: [{ reason: ' ' }, { reason: 'later' }] });
    await bed.groups.do('yard', 'parked');
    expect([bed.commits, bed.groups.aside()]).toEqual([[], []]);
    await bed.groups.do('yard', 'parked');
    expect(bed.groups.aside()).toMatchObject([{ id: 'yard', reason: 'later', days: 0, isOld: false, count: 2 }]);
    await bed.groups.do('yard', 'parked');
    expect([bed.groups.aside(), bed.document.tables.group.get('yard')]).toEqual([[], group('yard')]);
  });

  it('are deleted without a question where nothing guards them, and leave their things where they stood', async () => {
    const bed = grouped();
    await bed.groups.do('cover', 'delete');
    expect([bed.opened, groupOf(bed, 'a')]).toEqual([[], 'yard']);
  });

  it('are deleted with their things after a question, which says what guards them', async () => {
    const bed = grouped({
      content: {
        ...content,
        group: [group('yard', { guard: 'the boss stands here' }), group('cover', { parent: 'yard' })],
      },
      decisions: [true, undefined, true],
    });
    await bed.groups.do('cover', 'delete');
    // What guards a group guards all in it.
    expect([bed.opened[0], groupOf(bed, 'a')]).toMatchObject([
      { title: 'Delete cover?', losses: ['yard: the boss stands here'] },
      'yard',
    ]);
    await bed.groups.do('yard', 'delete with objects');
    expect(bed.document.tables.marker.size).toBe(3);
    await bed.groups.do('yard', 'delete with objects');
    expect(bed.opened[2]).toMatchObject({ title: 'Delete yard with 2 objects?', text: 'It is guarded:' });
    expect([...bed.document.tables.marker.keys(), bed.document.tables.group.size]).toEqual(['c', 0]);
  });

  it('become a template that makes them in any stratum', async () => {
    const settings = { id: 'c', name: 'C', groupTemplates: [] } as unknown as CollectionSettings;
    const bed = grouped({ tables: { collection: { c: settings } } });
    await bed.groups.do('yard', 'save as template');
    expect(bed.notices).toEqual(['yard is a template now: use + above the groups to add it to any stratum.']);
    expect(bed.commits[0].operations[0]).toMatchObject({ kind: 'collection', field: 'groupTemplates' });
    const made = bed.commits[0].operations[0].after as unknown as CollectionSettings['groupTemplates'];
    const again = grouped.bind(undefined, { tables: { collection: { c: { ...settings, groupTemplates: made } } } });
    TestBed.resetTestingModule();
    const other = again();
    await other.groups.add('yard');
    expect(other.groups.rows().map(({ group: { name }, depth }) => [name, depth])).toEqual([
      ['yard', 0],
      ['cover', 1],
      ['yard', 0],
      ['cover', 1],
    ]);
  });
});
