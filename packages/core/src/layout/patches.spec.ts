import fc from 'fast-check';
import { applyOperations, tryOperations, type DocumentState } from '../document/document-state';
import type { JsonRecord } from '../document/apply-operation';
import { invertOperations, type Operation } from '../document/operation';
import { canonicalJson } from '../json/canonical-json';
import { boxPlanes } from '../geometry/block-solid';
import type { Json } from '../model/json';
import { patchId } from '../model/patch';
import type { Item, Patch, StratumContent } from '../model/items';
import { EMPTY_CONTENT, ITEM_KINDS } from '../items';
import { recordFaults } from '../document/validate-record';
import {
  keepPatch,
  operationsForAll,
  operationsForOne,
  pushPatch,
  revertPatch,
  type SharedStratum,
} from './patch-operations';
import { patchStates, patchedContent, patchedItem } from './patched-content';

const BASE = 'base';
const marker = (id: string, x = 0): Item => ({ id, kind: 'spawn', position: [x, 0, 0], turn: 0 });
const block = (id: string): Item => ({
  id,
  name: id,
  position: [0, 0, 0],
  turn: [0, 0, 0],
  planes: boxPlanes([1, 2, 3]),
  sight: 'hides',
  material: 'brick',
});

function shared(items: readonly (readonly ['marker' | 'block', Item])[]): DocumentState {
  const state: DocumentState = new Map();
  applyOperations(
    state,
    items.map(([kind, item]) => ({
      document: BASE,
      kind,
      id: item.id,
      field: null,
      before: null,
      after: item as unknown as Json,
    })),
  );
  return state;
}
const stratumIn = (state: DocumentState, level: string): SharedStratum => ({
  id: BASE,
  level,
  item: (kind, id) => state.get(kind)?.get(id) as unknown as Item | undefined,
  patch: (id) => state.get('patch')?.get(id) as unknown as Patch | undefined,
  patches: () => [...(state.get('patch')?.values() ?? [])] as unknown as Patch[],
});
const contentIn = (state: DocumentState): StratumContent => ({
  ...EMPTY_CONTENT,
  ...Object.fromEntries(
    ITEM_KINDS.map((kind) => [
      kind,
      [...(state.get(kind)?.values() ?? [])].sort((a, b) => ((a['id'] as string) < (b['id'] as string) ? -1 : 1)),
    ]),
  ),
});
const text = (state: DocumentState): string => canonicalJson(contentIn(state) as unknown as Json);
/** Applies operations as the server does: refused unless every old value holds. */
function commit(state: DocumentState, operations: readonly Operation[]): void {
  const trial = tryOperations(() => state, operations);
  expect(trial.conflicts).toEqual([]);
  for (const { kind, record } of trial.touched) if (record) expect(recordFaults(kind, record)).toEqual([]);
  applyOperations(state, operations);
}
const seen = (state: DocumentState, level: string): StratumContent => patchedContent(contentIn(state), level);
const place = (id: string, before: number, after: number): Operation => ({
  document: BASE,
  kind: 'marker',
  id,
  field: 'position',
  before: [before, 0, 0],
  after: [after, 0, 0],
});
const patchOf = (state: DocumentState, level: string, id: string): Patch =>
  state.get('patch')?.get(patchId(level, id)) as unknown as Patch;

describe('a change of a shared stratum for one level alone', () => {
  it('is seen in that level only, and is gone when it is reverted', () => {
    const state = shared([['marker', marker('a')]]);
    const before = text(state);
    commit(state, operationsForOne(stratumIn(state, 'one'), [place('a', 0, 5)]));
    expect(seen(state, 'one').marker.map(({ position }) => position)).toEqual([[5, 0, 0]]);
    expect(seen(state, 'two').marker.map(({ position }) => position)).toEqual([[0, 0, 0]]);
    expect(patchOf(state, 'one', 'a')).toMatchObject({
      change: 'changed',
      fields: { position: [5, 0, 0] },
      was: { position: [0, 0, 0] },
    });
    commit(state, revertPatch(BASE, patchOf(state, 'one', 'a')));
    expect(text(state)).toBe(before);
  });

  it('is taken of a thing and in a level whose ids are as long as ids may be', () => {
    const [thing, level] = ['t'.repeat(80), 'l'.repeat(80)];
    const state = shared([['marker', marker(thing)]]);
    commit(state, operationsForOne(stratumIn(state, level), [place(thing, 0, 5)]));
    expect(seen(state, level).marker.map(({ position }) => position)).toEqual([[5, 0, 0]]);
  });

  it('leaves no patch when the value comes back to the shared one', () => {
    const state = shared([['marker', marker('a')]]);
    commit(state, operationsForOne(stratumIn(state, 'one'), [place('a', 0, 5)]));
    commit(state, operationsForOne(stratumIn(state, 'one'), [place('a', 5, 0)]));
    expect(state.get('patch')?.size).toBe(0);
  });

  it('hides instead of deleting, and an added thing that is deleted leaves nothing', () => {
    const state = shared([['marker', marker('a')]]);
    commit(
      state,
      operationsForOne(stratumIn(state, 'one'), [
        { ...place('a', 0, 0), field: null, before: marker('a') as never, after: null },
      ]),
    );
    commit(
      state,
      operationsForOne(stratumIn(state, 'one'), [
        { ...place('b', 0, 0), field: null, before: null, after: marker('b', 9) as never },
      ]),
    );
    expect(seen(state, 'one').marker.map(({ id }) => id)).toEqual(['b']);
    expect(seen(state, 'two').marker.map(({ id }) => id)).toEqual(['a']);
    commit(
      state,
      operationsForOne(stratumIn(state, 'one'), [
        { ...place('b', 0, 0), field: null, before: marker('b', 9) as never, after: null },
      ]),
    );
    expect([...(state.get('patch')?.keys() ?? [])]).toEqual([patchId('one', 'a')]);
  });

  it('takes a field away that only the shared item has', () => {
    const state = shared([['marker', { ...marker('a'), group: 'g' } as Item]]);
    commit(
      state,
      operationsForOne(stratumIn(state, 'one'), [
        { document: BASE, kind: 'marker', id: 'a', field: 'group', before: 'g', after: null },
      ]),
    );
    expect(seen(state, 'one').marker[0]).toEqual(marker('a'));
  });

  it('is refused for a recipe', () => {
    expect(() =>
      operationsForOne(stratumIn(new Map(), 'one'), [
        { document: BASE, kind: 'recipe', id: 'r', field: 'seed', before: 'a', after: 'b' },
      ]),
    ).toThrow(expect.objectContaining({ code: 'PATCH_KIND' }) as Error);
  });
});

describe('a change for all', () => {
  it('gives up what the level had otherwise, and leaves other levels their patches', () => {
    const state = shared([['marker', marker('a')]]);
    commit(state, operationsForOne(stratumIn(state, 'one'), [place('a', 0, 5)]));
    commit(state, operationsForOne(stratumIn(state, 'two'), [place('a', 0, 7)]));
    commit(state, operationsForAll(stratumIn(state, 'one'), [place('a', 5, 6)]));
    expect(['one', 'two', 'three'].map((level) => seen(state, level).marker[0].position[0])).toEqual([6, 7, 6]);
  });

  it('deletes with every level’s patch of it', () => {
    const state = shared([
      ['marker', marker('a')],
      ['block', block('b')],
    ]);
    commit(state, operationsForOne(stratumIn(state, 'two'), [place('a', 0, 7)]));
    commit(
      state,
      operationsForAll(stratumIn(state, 'one'), [
        { ...place('a', 0, 0), field: null, before: marker('a') as never, after: null },
      ]),
    );
    expect(contentIn(state)).toEqual({ ...EMPTY_CONTENT, block: [block('b')] });
  });

  it('changes two fields of one thing in one edit', () => {
    const state = shared([['marker', marker('a')]]);
    commit(
      state,
      operationsForOne(stratumIn(state, 'one'), [
        place('a', 0, 5),
        { document: BASE, kind: 'marker', id: 'a', field: 'turn', before: 0, after: 90 },
      ]),
    );
    commit(
      state,
      operationsForAll(stratumIn(state, 'one'), [
        place('a', 5, 6),
        { document: BASE, kind: 'marker', id: 'a', field: 'turn', before: 90, after: 45 },
      ]),
    );
    expect(contentIn(state)).toEqual({ ...EMPTY_CONTENT, marker: [{ ...marker('a', 6), turn: 45 }] });
  });

  it('leaves to one level what only that level has', () => {
    const state = shared([]);
    commit(
      state,
      operationsForOne(stratumIn(state, 'one'), [
        { ...place('b', 0, 0), field: null, before: null, after: marker('b', 9) as never },
      ]),
    );
    commit(state, operationsForAll(stratumIn(state, 'one'), [place('b', 9, 10)]));
    expect([seen(state, 'one').marker.length, seen(state, 'two').marker.length]).toEqual([1, 0]);
  });
});

describe('patches', () => {
  it('say what they do, what changed beneath them since, and whether they do anything', () => {
    const state = shared([['marker', marker('a')]]);
    commit(state, operationsForOne(stratumIn(state, 'one'), [place('a', 0, 5)]));
    commit(state, operationsForAll(stratumIn(state, 'two'), [place('a', 0, 1)]));
    const states = () =>
      patchStates(stratumIn(state, 'one').patches(), 'one', (kind, id) => stratumIn(state, 'one').item(kind, id));
    expect(states()).toEqual([
      {
        patch: patchOf(state, 'one', 'a'),
        command: 'moved',
        shared: marker('a', 1),
        isIdle: false,
        changedSince: ['position'],
      },
    ]);
    // Kept, it is compared with what is shared now; what it changes stays.
    const before = text(state);
    const kept = keepPatch(stratumIn(state, 'one'), patchOf(state, 'one', 'a'));
    commit(state, kept);
    expect(states()).toMatchObject([{ patch: { fields: patchOf(state, 'one', 'a').fields }, changedSince: [] }]);
    expect(seen(state, 'one').marker[0].position).toEqual([5, 0, 0]);
    commit(state, operationsForAll(stratumIn(state, 'two'), [place('a', 1, 2)]));
    expect(states()[0].changedSince).toEqual(['position']);
    commit(state, operationsForAll(stratumIn(state, 'two'), [place('a', 2, 1)]));
    commit(state, invertOperations(kept));
    expect(text(state)).toBe(before);
    state.get('marker')?.delete('a');
    expect(states()[0]).toMatchObject({ isIdle: true, shared: undefined });
    expect(keepPatch(stratumIn(state, 'one'), patchOf(state, 'one', 'a'))).toEqual([]);
    expect(() => pushPatch(stratumIn(state, 'one'), patchOf(state, 'one', 'a'))).toThrow(
      expect.objectContaining({ code: 'PATCH_TARGET' }) as Error,
    );
  });

  it.each<[string, Partial<Patch>]>([
    ['another name than its thing and level', { id: 'a..two' }],
    ['a field that the kind does not have', { fields: { wings: 2 } }],
    ['a value that the field cannot have', { fields: { turn: 'left' } }],
    ['an id', { fields: { id: 'b' } }],
    ['half a thing as added', { change: 'added', fields: { id: 'a', kind: 'spawn' } }],
    ['fields of what is hidden', { change: 'hidden' }],
  ])('are refused with %s', (_what, over) => {
    const good: Patch = {
      id: 'a..one',
      level: 'one',
      kind: 'marker',
      target: 'a',
      change: 'changed',
      fields: { turn: 5 },
      was: { turn: 0 },
    };
    expect(recordFaults('patch', good as unknown as JsonRecord)).toEqual([]);
    expect(recordFaults('patch', { ...good, ...over } as unknown as JsonRecord)).not.toEqual([]);
  });

  type Command = {
    readonly command: 'move' | 'delete' | 'add' | 'turn';
    readonly item: number;
    readonly by: number;
    readonly level: 'one' | 'two';
    readonly forAll: boolean;
  };
  const commands = fc.array(
    fc.record<Command>({
      command: fc.constantFrom('move' as const, 'delete' as const, 'add' as const, 'turn' as const),
      item: fc.nat(4),
      by: fc.integer({ min: -3, max: 3 }),
      level: fc.constantFrom('one' as const, 'two' as const),
      forAll: fc.boolean(),
    }),
    { maxLength: 25 },
  );
  const operationOf = (state: DocumentState, { command, item, by, level }: Command): Operation | undefined => {
    const id = `m${item}`;
    const stratum = stratumIn(state, level);
    const now = patchedItem(
      'marker',
      stratum.item('marker', id),
      stratum.item('patch', patchId(level, id)) as Patch | undefined,
    ) as { position: Json; turn: number } | undefined;
    const base = { document: BASE, kind: 'marker' as const, id };
    if (command === 'add')
      return now || stratum.item('marker', id)
        ? undefined
        : { ...base, field: null, before: null, after: marker(id, by) as never };
    if (!now) return undefined;
    if (command === 'delete') return { ...base, field: null, before: now as never, after: null };
    return command === 'move'
      ? { ...base, field: 'position', before: now.position, after: [by, 0, 0] }
      : { ...base, field: 'turn', before: now.turn, after: by };
  };

  it('any edits for one or for all, then all undone, leave equal bytes; and each shows in the level where it was made', () => {
    fc.assert(
      fc.property(commands, (all) => {
        const state = shared([0, 1, 2].map((i) => ['marker', marker(`m${i}`, i)] as const));
        const before = text(state);
        const done: Operation[][] = [];
        for (const command of all) {
          const operation = operationOf(state, command);
          if (!operation) continue;
          const other = command.level === 'one' ? 'two' : 'one';
          const elsewhere = canonicalJson(seen(state, other) as unknown as Json);
          const operations = (command.forAll ? operationsForAll : operationsForOne)(stratumIn(state, command.level), [
            operation,
          ]);
          commit(state, operations);
          done.push(operations);
          const now = seen(state, command.level).marker.find(({ id }) => id === operation.id) as unknown as
            JsonRecord | undefined;
          if (operation.field === null) expect(now !== undefined).toBe(command.command === 'add');
          else expect(now?.[operation.field]).toEqual(operation.after);
          if (!command.forAll) expect(canonicalJson(seen(state, other) as unknown as Json)).toBe(elsewhere);
        }
        for (const operations of done.reverse()) commit(state, invertOperations(operations));
        expect(text(state)).toBe(before);
      }),
      { numRuns: 300 },
    );
  });

  it('pushed, they give all levels what one had; pushed and taken back, nothing has changed', () => {
    fc.assert(
      fc.property(commands, (all) => {
        const state = shared([0, 1, 2].map((i) => ['marker', marker(`m${i}`, i)] as const));
        for (const command of all) {
          const operation = operationOf(state, command);
          if (operation) commit(state, operationsForOne(stratumIn(state, command.level), [operation]));
        }
        const before = text(state);
        const mine = canonicalJson(seen(state, 'one') as unknown as Json);
        const undo: Operation[][] = [];
        for (const { patch } of patchStates(stratumIn(state, 'one').patches(), 'one', (kind, id) =>
          stratumIn(state, 'one').item(kind, id),
        )) {
          const operations = pushPatch(stratumIn(state, 'one'), patch);
          commit(state, operations);
          undo.push(invertOperations(operations));
        }
        expect(canonicalJson(patchedContent({ ...contentIn(state), patch: [] }, 'one') as unknown as Json)).toBe(mine);
        for (const operations of undo.reverse()) commit(state, operations);
        expect(text(state)).toBe(before);
      }),
      { numRuns: 200 },
    );
  });
});
