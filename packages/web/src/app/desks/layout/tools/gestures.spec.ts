import { boxPlanes, type Block } from '@stravel/core';
import type { PickItem } from '../../../plate/pick-item';
import { sizeOfPlanes } from '../kinds/block/block-size';
import { TOOL_COMMANDS } from '../store/layout-tools';
import { BLOCK, CRATE, PLACEMENT, pathThrough } from '../testing/placed';
import { layoutBed } from '../testing/layout-bed';
import { layoutActions } from '../store/layout-store';
import { TOOL_FAMILIES } from './tool-families';

const hit = (id: string, stratum = 'st'): PickItem => ({
  stratum,
  kind: 'block',
  id,
  bounds: { min: [0, 0, 0], max: [1, 1, 1] },
});
const block = (id: string, over: Partial<Block> = {}): Block => ({ ...BLOCK, id, turn: [0, 0, 0], ...over });

describe('the tools of the tool line', () => {
  it('have one gesture for each command of the desk that chooses a tool', () => {
    const made = TOOL_FAMILIES.flatMap(({ tools }) => Object.keys(tools));
    expect([...made].sort()).toEqual(TOOL_COMMANDS.map(({ id }) => id).sort());
    expect(TOOL_FAMILIES.map(({ label }) => label)).toEqual([
      'select',
      'block',
      'wall',
      'piece',
      'marker',
      'volume',
      'path',
      'tiles',
      'mask',
      'region',
      'rule',
    ]);
  });

  it('let go of what is half done when another is chosen', () => {
    const bed = layoutBed();
    bed.set({ tool: 'prism', snapMetres: 0 });
    for (const x of [0, 4, 8]) bed.pointer('down', x, x * x);
    bed.set({ tool: 'path' });
    bed.pointer('move', 1, 1);
    bed.tools.finish();
    bed.set({ tool: 'prism' });
    bed.pointer('move', 1, 1);
    bed.tools.finish();
    expect([bed.commits, bed.tools.cancel()]).toEqual([[], false]);
  });
});

describe('drawing', () => {
  it('makes a box snapped to the grid, and freely with Alt held', async () => {
    const bed = layoutBed();
    bed.set({ tool: 'box', snapMetres: 0.5, blockHeight: 3 });
    bed.drag(0.1, 0.2, 4.1, 2.3);
    bed.drag(0.1, 0.2, 4.1, 2.3, [], { altKey: true });
    bed.drag(1, 1, 1, 5);
    expect([...bed.document.itemsOf('block')].map(({ position, planes }) => [position, sizeOfPlanes(planes)])).toEqual([
      [
        [2, 0, 1.25],
        [4, 3, 2.5],
      ],
      [
        [2.1, 0, 1.25],
        [4, 3, 2.1],
      ],
    ]);
    expect(bed.commits.map(({ label }) => label)).toEqual(['add box', 'add box']);
    await bed.settled();
    expect(bed.desk.selected().map(({ item }) => item.id)).toEqual([bed.commits[1].operations[0].id]);
  });

  it('makes a prism of an outline and refuses one that turns back', () => {
    const bed = layoutBed();
    bed.set({ tool: 'prism', snapMetres: 0 });
    const corners = (...points: [number, number][]) => points.forEach(([x, z]) => bed.pointer('down', x, z));
    corners([0, 0], [4, 0]);
    bed.tools.finish();
    expect(bed.commits).toEqual([]);
    corners([4, 4]);
    bed.tools.finish();
    expect([...bed.document.itemsOf('block')][0].planes).toHaveLength(5);
    corners([0, 0], [4, 0], [1, 1], [0, 4]);
    bed.tools.finish();
    expect([bed.commits.length, bed.notices.length]).toEqual([1, 1]);
    expect([bed.tools.cancel(), bed.tools.cancel()]).toEqual([true, false]);
  });

  it('closes an outline by a click on its first corner', () => {
    const bed = layoutBed();
    bed.set({ tool: 'prism', snapMetres: 0 });
    for (const [x, z] of [
      [0, 0],
      [6, 0],
      [6, 6],
      [0.5, 0.5],
    ])
      bed.pointer('down', x, z);
    expect([...bed.document.itemsOf('block')][0].planes).toHaveLength(5);
  });

  it('makes cylinders with as many sides as are asked for', () => {
    const bed = layoutBed();
    bed.set({ tool: 'cylinder', snapMetres: 0, sides: 7 });
    bed.drag(0, 0, 4, 4);
    expect([...bed.document.itemsOf('block')][0].planes).toHaveLength(9);
  });

  it('makes volumes of the chosen kind: a box, a sphere from its middle, a prism by its outline', () => {
    const drone = { id: 'drone', register: 'music', name: 'Drone', order: 'a0', values: {} };
    const bed = layoutBed({ tables: { entry: { drone } } });
    bed.set({ tool: 'volume', snapMetres: 0, volumeKind: 'drone', blockHeight: 4 });
    bed.drag(0, 0, 4, 2);
    bed.set({ volumeForm: 'sphere', volumeKind: '' });
    bed.drag(1, 1, 4, 5);
    bed.set({ volumeForm: 'prism' });
    for (const [x, z] of [
      [0, 0],
      [4, 0],
      [4, 4],
    ])
      bed.pointer('down', x, z);
    bed.tools.finish();
    expect([...bed.document.itemsOf('volume')]).toMatchObject([
      { name: 'Drone', kind: 'drone', position: [2, 0, 1], shape: { form: 'box', size: [4, 4, 2] } },
      { name: 'volume', kind: '', position: [1, 5, 1], shape: { form: 'sphere', radiusMetres: 5 } },
      { shape: { form: 'prism', heightMetres: 4, outline: [{}, {}, {}] } },
    ]);
  });

  it('sets a marker that looks where one drags', () => {
    const bed = layoutBed();
    bed.set({ marker: 'spawn', snapMetres: 0 });
    bed.drag(0, 0, -3, 0);
    expect([...bed.document.itemsOf('marker')]).toMatchObject([{ kind: 'spawn', position: [0, 0, 0], turn: 90 }]);
  });

  it('draws a path of two or more different knots', () => {
    const bed = layoutBed();
    bed.set({ tool: 'path', snapMetres: 0, pathForm: 'curve' });
    bed.pointer('down', 1, 1);
    bed.tools.finish();
    bed.pointer('down', 1, 1);
    bed.tools.finish();
    expect(bed.commits).toEqual([]);
    bed.pointer('down', 5, 1);
    bed.tools.finish();
    expect([...bed.document.itemsOf('path')]).toMatchObject([
      { form: 'curve', closed: false, knots: [{ position: [1, 0, 1] }, { position: [5, 0, 1] }] },
    ]);
  });

  it('stands new things on the surface below, snapped to things unless Alt is held; an assembly too', () => {
    const loom = { id: 'loom', name: 'Loom', role: 'structure', owner: null, kit: 'k' } as const;
    const bed = layoutBed({
      tables: { piece: { crate: CRATE }, stratum: { loom } },
      plate: {
        surfaceBelow: () => 1.25,
        itemsNear: () => [hit('near')],
        facesOf: () => [new Float64Array([3.3, 0, 4.4, 9, 0, 4.4, 9, 0, 9])],
      },
    });
    bed.store.dispatch(layoutActions.snapTargetFlipped({ target: 'corners' }));
    bed.set({ tool: 'piece', snapMetres: 0.5 });
    bed.pointer('down', 3, 4);
    expect(bed.notices).toEqual(['Choose a piece of the kit first.']);
    bed.set({ piece: 'crate' });
    bed.pointer('down', 3, 4);
    bed.store.dispatch(layoutActions.snapTargetFlipped({ target: 'surfaces' }));
    bed.pointer('down', 3, 4);
    bed.pointer('down', 3.1, 4, [], { altKey: true });
    bed.set({ piece: 'loom' });
    bed.pointer('down', 20, 4.2);
    expect([...bed.document.itemsOf('placement')].map(({ position }) => position)).toEqual([
      [3.3, 0, 4.4],
      [3.3, 1.25, 4.4],
      [3.1, 1.25, 4],
    ]);
    expect([...bed.document.itemsOf('assembly')]).toMatchObject([{ assembly: 'loom', position: [20, 1.25, 4] }]);
  });

  it('spans a tile floor and a mask, and refuses a stroke without an extent', () => {
    const bed = layoutBed();
    bed.set({ tool: 'tiles', snapMetres: 1 });
    bed.drag(0, 0, 4, 3);
    bed.set({ tool: 'mask' });
    bed.desk.select([]);
    bed.drag(0, 0, 4, 3);
    bed.desk.select([]);
    bed.drag(2, 2, 2, 2);
    expect(bed.commits.map(({ label }) => label)).toEqual(['add a tile floor', 'add a mask']);
    expect(bed.notices).toEqual(['Drag over the ground that the mask covers, or use From a picture….']);
  });
});

describe('selecting', () => {
  const two = { block: [block('top'), block('under'), block('floor')] };

  it('takes what is clicked, goes below at the next click, moves by drag', () => {
    const bed = layoutBed({ content: two });
    bed.set({ tool: 'select', snapMetres: 0.5 });
    const hits = [hit('top'), hit('under')];
    const ids = () => bed.desk.selected().map(({ item }) => item.id);
    bed.drag(1, 1, 1, 1, hits);
    expect(ids()).toEqual(['top']);
    bed.drag(1, 1, 1, 1, hits);
    expect(ids()).toEqual(['under']);
    bed.drag(1, 1.2, 3.1, 1.2, hits);
    expect(bed.document.item('block', 'under')?.position).toEqual([3, 0, 1]);
    bed.drag(9, 9, 9, 9, []);
    expect(ids()).toEqual([]);
  });

  it('leaves locked things alone, and drags only what is selected', () => {
    const bed = layoutBed({ content: two });
    bed.set({ tool: 'select' });
    bed.store.dispatch(layoutActions.stratumLocked({ id: 'st' }));
    bed.drag(1, 1, 1, 1, [hit('top')]);
    expect(bed.desk.selected()).toEqual([]);
    bed.store.dispatch(layoutActions.stratumLocked({ id: 'st' }));
    bed.drag(6, 6, 9, 9, [hit('floor')]);
    expect([bed.desk.selected(), bed.commits]).toEqual([[], []]);
  });

  it('takes what lies within a box and adds to it with Shift, each once', () => {
    const bed = layoutBed({ content: two, plate: { itemsWithin: () => [hit('top'), hit('under')] } });
    bed.set({ tool: 'select' });
    bed.desk.select([{ stratum: 'st', kind: 'block', id: 'floor' }]);
    bed.drag(0, 0, 5, 5, [], { shiftKey: true });
    bed.drag(0, 0, 5, 5, [], { shiftKey: true });
    expect(bed.desk.selected().map(({ item }) => item.id)).toEqual(['floor', 'top', 'under']);
    bed.drag(0, 0, 0, 0, [hit('top')], { shiftKey: true });
    expect(bed.desk.selected().map(({ item }) => item.id)).toEqual(['floor', 'under']);
  });

  it('stretches a block by a grip, snapped, and turns it by the knob in steps', () => {
    const bed = layoutBed({ content: { block: [block('b', { position: [10, 0, 10], turn: [90, 0, 0] })] } });
    bed.set({ tool: 'select', snapMetres: 0.5 });
    bed.desk.select([{ stratum: 'st', kind: 'block', id: 'b' }]);
    // Turned by 90 degrees its local +z side, 2 m from the middle, looks along +x.
    bed.drag(12, 10, 14.1, 10);
    const stretched = bed.document.item('block', 'b') ?? BLOCK;
    expect([sizeOfPlanes(stretched.planes), stretched.position]).toEqual([
      [2, 3, 6],
      [11, 0, 10],
    ]);
    bed.drag(11 - 3 - 2.6, 10, 11, 20);
    expect(bed.document.item('block', 'b')?.turn).toEqual([180, 0, 0]);
    expect(bed.commits.map(({ label }) => label)).toEqual(['resize a block', 'rotation of a block']);
  });

  it('turns a placement by its knob alone where it is too small to be stretched', () => {
    const bed = layoutBed({ content: { placement: [PLACEMENT] }, tables: { piece: { crate: CRATE } } });
    bed.set({ tool: 'select', snapMetres: 0.5 });
    bed.desk.select([{ stratum: 'st', kind: 'placement', id: 'p' }]);
    // A metre wide: too small on the screen for grips at its corners, only the knob is there.
    bed.drag(3, 1 - 0.5 - 2.6, 13, 1);
    expect(bed.document.item('placement', 'p')?.turn).toEqual([-90, 0, 0]);
  });

  it('leaves a block that leans to its card', () => {
    const bed = layoutBed({ content: { block: [block('b', { turn: [0, 5, 0], planes: boxPlanes([20, 3, 20]) })] } });
    bed.set({ tool: 'select' });
    bed.desk.select([{ stratum: 'st', kind: 'block', id: 'b' }]);
    bed.drag(11, 1, 20, 1);
    expect(bed.commits).toEqual([]);
  });

  it('drags a knot and a handle of the one path that is selected, not of a locked one', () => {
    const bed = layoutBed({ content: { path: [pathThrough('curve', 0, 8)] } });
    bed.set({ tool: 'select', snapMetres: 0.5 });
    bed.desk.select([{ stratum: 'st', kind: 'path', id: 'way' }]);
    bed.drag(8.1, 0.1, 9.1, 3.2);
    expect(bed.document.item('path', 'way')?.knots[1].position).toEqual([9, 0, 3]);
    bed.store.dispatch(layoutActions.stratumLocked({ id: 'st' }));
    bed.desk.select([{ stratum: 'st', kind: 'path', id: 'way' }]);
    bed.drag(9, 3, 20, 20);
    expect(bed.commits.map(({ label }) => label)).toEqual(['move a knot']);
  });
});

describe('moving a region', () => {
  it('asks by how much only when one was drawn', () => {
    const bed = layoutBed({ answers: [undefined] });
    bed.set({ tool: 'region' });
    bed.drag(0, 0, 0.1, 0.1);
    expect(bed.asked).toEqual([]);
    bed.drag(0, 0, 5, 6);
    expect(bed.asked).toEqual(['Move a region']);
  });
});
