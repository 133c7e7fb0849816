import fc from 'fast-check';
import { applyOperation, type JsonRecord } from '../../document/apply-operation';
import type { Operation } from '../../document/operation';
import { boxPlanes } from '../../geometry/block-solid';
import type { AssemblyUse, Item, ItemKind, StratumContent } from '../../model/items';
import type { Block } from '../../model/block';
import type { Marker } from '../../model/marker';
import type { Placement } from '../../model/placement';
import { EMPTY_CONTENT } from '../../items';
import type { Stratum } from '../../model/stratum';
import { operationsForAll, operationsForOne, pushPatch, revertPatch } from '../patch-operations';
import { assembliesWithin, laidId, withAssemblies, wouldHoldItself } from './lay-assemblies';
import { assemblyOfUse, operationsOnUse, patchesOfUse } from './use-patches';

const block = (id: string, position: Block['position']): Block => ({
  id,
  name: id,
  position,
  turn: [0, 0, 0],
  planes: boxPlanes([1, 2, 3]),
  sight: 'hides',
  material: 'brick',
});
const marker = (id: string, position: Marker['position']): Marker => ({ id, kind: 'spawn', position, turn: 10 });
const placement = (id: string, position: Placement['position']): Placement => ({
  id,
  piece: 'crate',
  position,
  turn: [5, 0, 0],
  scale: [1, 1, 1],
});
const use = (id: string, assembly: string, over: Partial<AssemblyUse> = {}): AssemblyUse => ({
  id,
  assembly,
  position: [0, 0, 0],
  turn: 0,
  ...over,
});

const bay: StratumContent = {
  ...EMPTY_CONTENT,
  block: [block('jamb', [-1, 0, 0]), block('lintel', [0, 2, 0])],
  marker: [marker('bell', [2, 0, 1])],
  placement: [placement('crate', [1, 0, 0])],
  link: [
    {
      id: 'pull',
      emitter: 'bell',
      event: 'used',
      who: '',
      once: false,
      delaySeconds: 0,
      action: 'open',
      target: 'jamb',
      arguments: {},
    },
  ],
};
const row: StratumContent = {
  ...EMPTY_CONTENT,
  assembly: [use('left', 'bay', { position: [-10, 0, 0] }), use('right', 'bay', { position: [10, 0, 0], turn: 90 })],
};
const contents = new Map([
  ['bay', bay],
  ['row', row],
]);
const lay = (...uses: AssemblyUse[]): StratumContent =>
  withAssemblies({ ...EMPTY_CONTENT, assembly: uses }, (id) => contents.get(id));

describe('assemblies laid out', () => {
  it('put their things in place, turned with them, with links that lead within', () => {
    const {
      block: blocks,
      marker: markers,
      placement: placements,
      link: links,
      assembly,
    } = lay(use('u', 'bay', { position: [5, 1, 7], turn: 90, group: 'doors' }));
    // A quarter turn counter-clockwise from above takes x to −z.
    expect(blocks.map(({ id, position, turn, group }) => [id, position, turn, group])).toEqual([
      ['u.jamb', [5, 1, 8], [90, 0, 0], 'doors'],
      ['u.lintel', [5, 3, 7], [90, 0, 0], 'doors'],
    ]);
    expect(markers.map(({ position, turn }) => [position, turn])).toEqual([[[6, 1, 5], 100]]);
    expect(placements.map(({ position, turn }) => [position, turn])).toEqual([
      [
        [5, 1, 6],
        [95, 0, 0],
      ],
    ]);
    expect(links.map(({ emitter, target }) => [emitter, target])).toEqual([['u.bell', 'u.jamb']]);
    expect(assembly).toEqual([]);
  });

  it('nest, and leave what is already there', () => {
    const all = withAssemblies(
      {
        ...EMPTY_CONTENT,
        block: [block('z', [0, 0, 0])],
        assembly: [use('a', 'row', { position: [0, 0, 100], turn: 180 })],
      },
      (id) => contents.get(id),
    );
    expect(all.block.map(({ id, position, turn }) => [id, position, turn[0]])).toEqual([
      ['a.left.jamb', [11, 0, 100], 180],
      ['a.left.lintel', [10, 2, 100], 180],
      ['a.right.jamb', [-10, 0, 99], -90],
      ['a.right.lintel', [-10, 2, 100], -90],
      ['z', [0, 0, 0], 0],
    ]);
  });

  it('leave uses of what is missing, or holds itself', () => {
    const looped = new Map([
      ['snake', { ...EMPTY_CONTENT, marker: [marker('head', [0, 0, 0])], assembly: [use('tail', 'snake')] }],
    ]);
    const { marker: markers, assembly } = withAssemblies(
      { ...EMPTY_CONTENT, assembly: [use('a', 'gone'), use('b', 'snake')] },
      (id) => looped.get(id),
    );
    expect(markers.map(({ id }) => id)).toEqual(['b.head']);
    expect(assembly.map(({ id }) => id)).toEqual(['a', 'b.tail']);
  });

  it('keep distances, wherever they stand', () => {
    const coordinate = fc.integer({ min: -1000, max: 1000 });
    fc.assert(
      fc.property(
        fc.tuple(coordinate, coordinate, coordinate),
        fc.integer({ min: -720, max: 720 }),
        (position, turn) => {
          const [a, b] = lay(use('u', 'bay', { position, turn })).block;
          const apart = Math.hypot(...a.position.map((value, k) => value - b.position[k]));
          expect(apart).toBeCloseTo(Math.hypot(1, 2), 5);
        },
      ),
    );
  });

  it('know from the records what they hold, and what would hold itself', () => {
    const stratum = (id: string, assemblies?: string[]): Stratum => ({
      id,
      name: id,
      role: 'structure',
      owner: null,
      ...(assemblies ? { assemblies } : {}),
    });
    const records = { base: stratum('base', ['row']), row: stratum('row', ['bay', 'gone']), bay: stratum('bay') };
    expect([...assembliesWithin(records, ['base'])].sort()).toEqual(['bay', 'gone', 'row']);
    expect([...assembliesWithin(records, ['bay', 'nowhere'])]).toEqual([]);
    expect([
      wouldHoldItself(records, 'bay', 'row'),
      wouldHoldItself(records, 'row', 'row'),
      wouldHoldItself(records, 'row', 'bay'),
    ]).toEqual([true, true, false]);
  });
});

describe('what a use has otherwise', () => {
  const itemOf = (kind: ItemKind, id: string): Item | undefined =>
    (bay[kind] as readonly Item[]).find((one) => one.id === id);
  const change = (kind: ItemKind, id: string, field: string | null, before: unknown, after: unknown): Operation =>
    ({ document: 'bay', kind, id, field, before, after }) as Operation;
  const applied = (to: AssemblyUse, operations: readonly Operation[]): AssemblyUse =>
    operations.reduce(
      (now, operation) => applyOperation(now as unknown as JsonRecord, operation) as unknown as AssemblyUse,
      to,
    );
  const onUse = (to: AssemblyUse, operations: readonly Operation[]): Operation[] =>
    operationsOnUse('base', to, operationsForOne(assemblyOfUse(to, itemOf), operations));

  it('moves, hides and adds things there only, and is gone without a trace when it is taken back', () => {
    const plain = use('u', 'bay');
    const moved = applied(plain, onUse(plain, [change('block', 'jamb', 'position', [-1, 0, 0], [-1.5, 0, 0])]));
    const hidden = applied(
      moved,
      onUse(moved, [change('placement', 'crate', null, itemOf('placement', 'crate'), null)]),
    );
    const added = applied(
      hidden,
      onUse(hidden, [change('marker', 'way-out', null, null, marker('way-out', [9, 0, 0]))]),
    );
    const { block: blocks, placement: placements, marker: markers } = lay(added, use('v', 'bay'));
    expect(blocks.map(({ id, position }) => [id, position[0]])).toContainEqual([laidId('u', 'jamb'), -1.5]);
    expect(blocks.map(({ id, position }) => [id, position[0]])).toContainEqual([laidId('v', 'jamb'), -1]);
    expect(placements.map(({ id }) => id)).toEqual(['v.crate']);
    expect(markers.map(({ id }) => id)).toEqual(['u.bell', 'u.way-out', 'v.bell']);
    const back = patchesOfUse(added).reduce(
      (now, patch) => applied(now, operationsOnUse('base', now, revertPatch('bay', patch))),
      added,
    );
    expect(back).toEqual(plain);
  });

  it('goes to all uses when it is given to all', () => {
    const plain = use('u', 'bay');
    const moved = applied(plain, onUse(plain, [change('block', 'jamb', 'position', [-1, 0, 0], [-1.5, 0, 0])]));
    const pushed = operationsOnUse('base', moved, pushPatch(assemblyOfUse(moved, itemOf), patchesOfUse(moved)[0]));
    expect(pushed.filter(({ document }) => document === 'bay')).toEqual([
      change('block', 'jamb', 'position', [-1, 0, 0], [-1.5, 0, 0]),
    ]);
    expect(
      applied(
        moved,
        pushed.filter(({ document }) => document === 'base'),
      ),
    ).toEqual(plain);
  });

  it('gives way to a change for all of the same field', () => {
    const plain = use('u', 'bay');
    const moved = applied(plain, onUse(plain, [change('block', 'jamb', 'position', [-1, 0, 0], [-1.5, 0, 0])]));
    const all = operationsOnUse(
      'base',
      moved,
      operationsForAll(assemblyOfUse(moved, itemOf), [change('block', 'jamb', 'position', [-1.5, 0, 0], [-4, 0, 0])]),
    );
    expect(all.map(({ document, field }) => [document, field])).toEqual([
      ['bay', 'position'],
      ['base', 'patches'],
    ]);
  });
});
