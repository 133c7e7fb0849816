import { boxPlanes, type Block, type Operation, type Piece, type Placement } from '@stravel/core';
import {
  deleteItems,
  duplicateItems,
  moveItems,
  resizeItem,
  sizeOfPlanes,
  turnItems,
  type PlacedItem,
} from './editing/item-edits';
import { handleFrame, stretchItem } from './plan/frame';
import { PlanTool, type PlanToolHost } from './plan-tool';
import type { KnotGrip } from './plan/plan-drawing';
import { layoutActions, layoutFeature, type LayoutState } from './store/layout-store';

const block: Block = {
  id: 'b',
  name: 'b',
  position: [1, 0, 1],
  turn: [10, 0, 0],
  planes: boxPlanes([2, 3, 4]),
  sight: 'hides',
  material: 'brick',
};
const placement: Placement = { id: 'p', piece: 'crate', position: [3, 0, 1], turn: [0, 0, 0], scale: [1, 1, 1] };
const crate: Piece = {
  id: 'crate',
  kit: 'k',
  name: 'crate',
  bounds: { min: [-0.5, 0, -0.5], max: [0.5, 2, 0.5] },
  steps: [],
};
const placed = (kind: PlacedItem['kind'], item: PlacedItem['item']): PlacedItem => ({ stratum: 'st', kind, item });
const values = (operations: readonly Operation[]) => operations.map(({ id, field, after }) => [id, field, after]);

describe('edits of items', () => {
  it('move by exact amounts without drift', () => {
    let item = placed('block', block);
    for (let i = 0; i < 10; i++)
      item = placed('block', { ...block, position: moveItems([item], [0.1, 0, 0])[0].after as never });
    expect((item.item as Block).position).toEqual([2, 0, 1]);
  });

  it('turn together about their middle, by hand', () => {
    expect(values(turnItems([placed('block', block), placed('placement', placement)], 90, [2, 1]))).toEqual([
      ['b', 'position', [2, 0, 2]],
      ['b', 'turn', [100, 0, 0]],
      ['p', 'position', [2, 0, 0]],
      ['p', 'turn', [90, 0, 0]],
    ]);
    expect(turnItems([placed('block', { ...block, turn: [170, 0, 0] })], 20, [1, 1])[1].after).toEqual([-170, 0, 0]);
  });

  it('resize blocks by their planes and placements by scale', () => {
    const [operation] = resizeItem(placed('block', block), [4, 3, 1], undefined);
    expect(sizeOfPlanes(operation.after as unknown as Block['planes'])).toEqual([4, 3, 1]);
    expect(resizeItem(placed('placement', placement), [2, 1, 1], crate)[0].after).toEqual([2, 0.5, 1]);
    expect(
      resizeItem(placed('marker', { id: 'm', kind: 'spawn', position: [0, 0, 0], turn: 0 }), [1, 1, 1], undefined),
    ).toEqual([]);
  });

  it('stretch by an extent so that the other side stays, at any yaw', () => {
    const turned = placed('block', { ...block, position: [0, 0, 0], turn: [90, 0, 0] });
    const frame = handleFrame(turned, undefined);
    if (!frame) throw new Error('an upright block has grips');
    const [planes, position] = stretchItem(frame, { low: [-1, -2], high: [1, 4] });
    expect(sizeOfPlanes(planes.after as unknown as Block['planes'])).toEqual([2, 3, 6]);
    // Local z from −2..2 to −2..4: the middle moves 1 m along local z, which looks along +x.
    expect(position.after).toEqual([1, 0, 0]);
    expect(handleFrame(placed('block', { ...block, turn: [0, 5, 0] }), undefined)).toBeUndefined();
    const grown = handleFrame(placed('placement', placement), crate);
    if (!grown) throw new Error('a placement has grips');
    expect(values(stretchItem(grown, { low: [-0.5, -0.5], high: [1.5, 0.5] }))).toEqual([
      ['p', 'scale', [2, 1, 1]],
      ['p', 'position', [3.5, 0, 1]],
    ]);
  });

  it('duplicate beside and delete with all they were', () => {
    const { copies, operations } = duplicateItems([placed('block', block)], [0.5, 0, 0.5]);
    expect(operations[0].after).toMatchObject({ position: [1.5, 0, 1.5], name: 'b' });
    expect(copies[0].item.id).not.toBe('b');
    expect(deleteItems([placed('block', block)])[0]).toMatchObject({ field: null, before: block, after: null });
  });
});

describe('the plan tool', () => {
  let state: LayoutState;
  let calls: unknown[][];
  let tool: PlanTool;
  let frame: ReturnType<typeof handleFrame>;
  let surface: number | undefined;
  let snap: readonly [number, number] | undefined;
  let knots: readonly KnotGrip[];
  const start = (over: Partial<LayoutState>) => {
    state = { ...layoutFeature.reducer(undefined, layoutActions.selectionDropped()), ...over };
    calls = [];
    frame = undefined;
    surface = undefined;
    snap = undefined;
    knots = [];
    const record =
      (name: string) =>
      (...parameters: unknown[]) =>
        void calls.push([name, ...parameters]);
    const host: PlanToolHost = {
      state: () => state,
      floor: () => 0,
      isLocked: ({ stratum }) => stratum === 'locked',
      within: () => [{ stratum: 'st', kind: 'block', id: 'w', bounds: { min: [0, 0, 0], max: [1, 1, 1] } }],
      select: record('select'),
      frame: () => frame,
      outlines: () => [],
      move: record('move'),
      stretch: record('stretch'),
      turnTo: record('turnTo'),
      volumeName: () => 'Drone',
      surfaceAt: () => surface,
      snapPoint: () => snap,
      knots: () => knots,
      moveKnot: record('moveKnot'),
      moveHandle: record('moveHandle'),
      moveRegion: record('moveRegion'),
      drawStroke: record('drawStroke'),
      brushMetres: () => 0,
      isAssembly: () => false,
      add: record('add'),
      notify: record('notify'),
      redraw: () => undefined,
    };
    tool = new PlanTool(host);
  };
  const hit = (id: string, stratum = 'st') => ({
    stratum,
    kind: 'block' as const,
    id,
    bounds: { min: [0, 0, 0] as const, max: [1, 1, 1] as const },
  });
  const pointer = (
    phase: 'down' | 'move' | 'up',
    x: number,
    z: number,
    hits: ReturnType<typeof hit>[] = [],
    keys: Partial<PointerEvent> = {},
  ) =>
    tool.pointer({
      phase,
      x,
      z,
      event: { altKey: false, shiftKey: false, ...keys } as PointerEvent,
      hits: () => hits,
      metresPerPixel: 0.1,
    });
  const drag = (x0: number, z0: number, x1: number, z1: number, hits: ReturnType<typeof hit>[] = [], keys = {}) => {
    pointer('down', x0, z0, hits, keys);
    pointer('move', x1, z1, hits, keys);
    pointer('up', x1, z1, hits, keys);
  };

  it('draws a box snapped to the grid, and freely with Alt held', () => {
    start({ tool: 'box', snapMetres: 0.5, blockHeight: 3 });
    drag(0.1, 0.2, 4.1, 2.3);
    expect(calls[0].slice(0, 2)).toEqual(['add', 'block']);
    expect((calls[0][2] as Block).position).toEqual([2, 0, 1.25]);
    expect(sizeOfPlanes((calls[0][2] as Block).planes)).toEqual([4, 3, 2.5]);
    drag(0.1, 0.2, 4.1, 2.3, [], { altKey: true });
    expect(sizeOfPlanes((calls[1][2] as Block).planes)).toEqual([4, 3, 2.1]);
    drag(1, 1, 1, 5);
    expect(calls).toHaveLength(2);
  });

  it('makes a prism of an outline and refuses one that turns back', () => {
    start({ tool: 'prism', snapMetres: 0 });
    for (const [x, z] of [
      [0, 0],
      [4, 0],
      [4, 4],
    ])
      pointer('down', x, z);
    tool.finishOutline();
    expect((calls[0][2] as Block).planes).toHaveLength(5);
    start({ tool: 'prism', snapMetres: 0 });
    for (const [x, z] of [
      [0, 0],
      [4, 0],
      [1, 1],
      [0, 4],
    ])
      pointer('down', x, z);
    tool.finishOutline();
    expect(calls[0][0]).toBe('notify');
    expect(tool.cancel()).toBe(true);
    expect(tool.cancel()).toBe(false);
  });

  it('selects by click, goes below at the next, moves by drag, leaves locked things alone', () => {
    start({ tool: 'select', snapMetres: 0.5 });
    const hits = [hit('top'), hit('under')];
    const click = () => {
      pointer('down', 1, 1, hits);
      pointer('up', 1, 1, hits);
      state = { ...state, selection: [...((calls.at(-1)?.[1] as LayoutState['selection']) ?? [])] };
    };
    click();
    expect(state.selection.map(({ id }) => id)).toEqual(['top']);
    click();
    expect(state.selection.map(({ id }) => id)).toEqual(['under']);
    drag(1, 1, 3.1, 1, hits);
    expect(calls.at(-1)).toEqual(['move', [2, 0, 0]]);
    drag(5, 5, 5, 5, [hit('x', 'locked')]);
    expect(calls.at(-1)).toEqual(['select', []]);
    calls = [];
    drag(6, 6, 9, 9, [hit('floor')]);
    expect(calls.map(([name]) => name)).toEqual(['select']);
  });

  it('stretches by a grip, snapped, and turns by the knob in steps', () => {
    start({ tool: 'select', snapMetres: 0.5 });
    const box = placed('block', { ...block, position: [10, 0, 10], turn: [90, 0, 0] });
    frame = handleFrame(box, undefined);
    // Turned by 90 degrees its local +z side, 2 m from the middle, looks along +x.
    drag(12, 10, 14.1, 10);
    expect(calls).toEqual([['stretch', { low: [-1, -2], high: [1, 4] }]]);
    drag(10 - 2 - 2.6, 10, 10, 20);
    expect(calls[1][0]).toBe('turnTo');
    expect(calls[1][1]).toBe(180);
  });

  it('selects by box and adds to it with Shift', () => {
    start({ tool: 'select', selection: [{ stratum: 'st', kind: 'block', id: 'old' }] });
    drag(0, 0, 5, 5, [], { shiftKey: true });
    expect((calls[0][1] as { id: string }[]).map(({ id }) => id)).toEqual(['old', 'w']);
  });

  it('sets a marker that looks where one drags', () => {
    start({ tool: 'marker', marker: 'spawn', snapMetres: 0 });
    drag(0, 0, -3, 0);
    expect(calls[0][2]).toMatchObject({ kind: 'spawn', position: [0, 0, 0], turn: 90 });
  });

  it('makes cylinders with as many sides as are asked for', () => {
    start({ tool: 'cylinder', snapMetres: 0, sides: 7 });
    drag(0, 0, 4, 4);
    expect((calls[0][2] as Block).planes).toHaveLength(9);
  });

  it('makes volumes of the chosen kind: a box, a sphere from its middle, a prism by its outline', () => {
    start({ tool: 'volume', snapMetres: 0, volumeKind: 'music-drone', blockHeight: 4 });
    drag(0, 0, 4, 2);
    expect(calls[0][2]).toMatchObject({
      name: 'Drone',
      kind: 'music-drone',
      position: [2, 0, 1],
      shape: { form: 'box', size: [4, 4, 2] },
    });
    start({ tool: 'volume', snapMetres: 0, volumeForm: 'sphere' });
    drag(1, 1, 4, 5);
    expect(calls[0][2]).toMatchObject({ position: [1, 5, 1], shape: { form: 'sphere', radiusMetres: 5 } });
    start({ tool: 'volume', snapMetres: 0, volumeForm: 'prism' });
    for (const [x, z] of [
      [0, 0],
      [4, 0],
      [4, 4],
    ])
      pointer('down', x, z);
    tool.finishOutline();
    expect((calls[0][2] as { shape: { outline: unknown[] } }).shape.outline).toHaveLength(3);
  });

  it('draws a path of two or more different knots', () => {
    start({ tool: 'path', snapMetres: 0, pathForm: 'curve' });
    pointer('down', 1, 1);
    tool.finishOutline();
    expect(calls).toEqual([]);
    pointer('down', 1, 1);
    pointer('down', 5, 1);
    tool.finishOutline();
    expect(calls[0][2]).toMatchObject({
      form: 'curve',
      closed: false,
      knots: [{ position: [1, 0, 1] }, { position: [5, 0, 1] }],
    });
  });

  it('drags a knot, and moves a region only when one was drawn', () => {
    start({ tool: 'select', snapMetres: 0.5 });
    knots = [
      { index: 0, end: 0, at: [0, 0] },
      { index: 1, end: 0, at: [8, 0] },
      { index: 1, end: -1, at: [6, 0] },
    ];
    drag(8.1, 0.1, 9.1, 3.2);
    drag(6.1, 0.1, 6.1, 2.1);
    expect(calls).toEqual([
      ['moveKnot', 1, [9, 3]],
      ['moveHandle', 1, -1, [6, 2]],
    ]);
    start({ tool: 'region' });
    drag(0, 0, 0.1, 0.1);
    drag(0, 0, 5, 6);
    expect(calls).toEqual([['moveRegion', [0, 0], [5, 6]]]);
  });

  it('stands new things on the surface below, and snaps to things unless Alt is held', () => {
    start({ tool: 'piece', piece: 'crate', snapMetres: 0.5 });
    surface = 1.25;
    snap = [3.33, 4.44];
    pointer('down', 3, 4);
    pointer('down', 3.1, 4, [], { altKey: true });
    expect(calls.map(([, , item]) => (item as { position: unknown }).position)).toEqual([
      [3.33, 1.25, 4.44],
      [3.1, 1.25, 4],
    ]);
  });
});
