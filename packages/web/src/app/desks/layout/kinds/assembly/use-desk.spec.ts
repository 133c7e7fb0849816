import { TestBed } from '@angular/core/testing';
import type { AssemblyUse, Kit, Marker } from '@stravel/core';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from '../../testing/layout-bed';
import { BLOCK, documentOf } from '../../testing/placed';
import { AssembliesDesk } from './assemblies-desk';
import { UseDesk } from './use-desk';

const marker = (id: string, x: number): Marker => ({ id, kind: 'exit', position: [x, 0, 0], turn: 0 });
const use = (id: string, assembly = 'rack'): AssemblyUse => ({ id, assembly, position: [10, 0, 0], turn: 90 });
const kit = { id: 'kit', name: 'Yard' } as Kit;
const stratum = (id: string, name: string) => ({ id, name, role: 'assembly' as const, owner: null, kit: 'kit' });

function standing(options: LayoutBedOptions = {}): LayoutBed & {
  readonly one: UseDesk;
  readonly all: AssembliesDesk;
  readonly use: () => AssemblyUse | undefined;
} {
  const bed = layoutBed({
    content: { assembly: [use('u')], block: [BLOCK] },
    assemblies: [documentOf('rack', { marker: [marker('a', 1), marker('b', 2)] }), documentOf('cart', {})],
    ...options,
    tables: {
      kit: { kit },
      stratum: { rack: stratum('rack', 'Rack'), cart: stratum('cart', 'Cart') } as never,
      ...options.tables,
    },
  });
  bed.desk.select([{ stratum: 'st', kind: 'assembly', id: 'u' }]);
  return {
    ...bed,
    one: TestBed.inject(UseDesk),
    all: TestBed.inject(AssembliesDesk),
    use: () => bed.document.tables.assembly.get('u'),
  };
}

describe('the chosen use of an assembly', () => {
  it('lists what stands within it, and what it has otherwise once that is so', async () => {
    const bed = standing({ answers: [{ x: 0, y: 0, z: 3 }] });
    const rows = () => bed.one.within().map(({ id, otherwise, isHidden }) => [id, otherwise, isHidden]);
    expect(rows()).toEqual([
      ['a', '', false],
      ['b', '', false],
    ]);
    await bed.one.hide(bed.one.within()[0]);
    await bed.one.move(bed.one.within()[1]);
    expect(rows()).toEqual([
      ['a', 'hidden', true],
      ['b', 'moved: position 2,0,0 → 2,0,3', false],
    ]);
    // The assembly itself is as it was.
    expect(bed.commits.every(({ operations }) => operations.every(({ document }) => document === 'st'))).toBe(true);
    for (const { state } of bed.one.within()) if (state) await bed.one.revert(state);
    expect(rows()).toEqual([
      ['a', '', false],
      ['b', '', false],
    ]);
    expect(bed.use()).toEqual(use('u'));
  });

  it('gives what it has otherwise to all after saying whom it reaches', async () => {
    const bed = standing({ decisions: [undefined, true] });
    await bed.one.hide(bed.one.within()[0]);
    const [{ state }] = bed.one.within();
    if (!state) throw new Error('nothing is otherwise');
    await bed.one.giveToAll(state);
    expect(bed.commits).toHaveLength(1);
    await bed.one.giveToAll(state);
    expect(bed.opened[1]).toMatchObject({ title: 'Change Rack everywhere?', command: 'Change everywhere' });
    expect(bed.commits[1].operations).toContainEqual(
      expect.objectContaining({ document: 'rack', kind: 'marker', id: 'a', after: null }),
    );
  });
});

describe('the assemblies of the kits', () => {
  it('stand by name', () => {
    expect(
      standing()
        .all.all()
        .map(({ name }) => name),
    ).toEqual(['Cart', 'Rack']);
  });

  it('are made of what is selected, with a use in its place; without a kit that is said', async () => {
    const bed = standing({ answers: [{ name: ' Gate ', x: 1, y: 0, z: 1 }] });
    bed.desk.select([{ stratum: 'st', kind: 'block', id: 'b' }]);
    await bed.all.make();
    const [made] = [...bed.document.tables.assembly.values()].filter(({ id }) => id !== 'u');
    expect([made.position, bed.document.tables.block.size]).toEqual([[1, 0, 1], 0]);
    expect(bed.commits[0]).toMatchObject({ label: 'make Gate' });
    expect(bed.desk.selected()).toMatchObject([{ kind: 'assembly', item: { id: made.id } }]);
    TestBed.resetTestingModule();
    const none = standing({ tables: { kit: {} } });
    await none.all.make();
    expect([none.commits, none.notices[0]]).toEqual([[], expect.stringContaining('has none yet')]);
  });

  it('are replaced, and parted with into things of their own', async () => {
    const bed = standing({ answers: [{ by: 'cart' }] });
    await bed.all.replace();
    expect(bed.use()).toMatchObject({ assembly: 'cart', position: [10, 0, 0], turn: 90 });
    TestBed.resetTestingModule();
    const parted = standing();
    await parted.all.partWays();
    expect([parted.use(), parted.commits[0].label]).toEqual([undefined, 'turn an assembly into plain content']);
    const at = [...parted.document.tables.marker.values()].map(({ position }) => position.map(Math.round));
    // Turned by a quarter with their assembly.
    expect(at.map(([x, , z]) => [x, Math.abs(z)])).toEqual([
      [10, 1],
      [10, 2],
    ]);
    expect(parted.desk.selected()).toHaveLength(2);
  });

  it('that stand nowhere are deleted; of others it is said where they stand', async () => {
    const level = { id: 'level', name: 'Hall' } as never;
    const bed = standing({ tables: { level: { level } } });
    await bed.all.delete('rack');
    expect([bed.commits, bed.notices]).toEqual([[], ['Rack is or was used in Hall. Replace it there first.']]);
    TestBed.resetTestingModule();
    const nowhere = standing();
    await nowhere.all.delete('rack');
    expect(nowhere.commits.map(({ label }) => label)).toEqual(['delete Rack']);
    expect(nowhere.gone).toEqual([['/layout']]);
  });
});
