import fc from 'fast-check';
import type { CarriedValue, UnlockRule } from '../model/unlock';
import { playFrom, playLevel, startOfPlay, typeCode, type PlayState } from './play-through';
import { createRunContext } from '../context/run-context';
import { layoutOrderGraph, ORDER_NODE } from './order-graph';
import { checkUnlocking } from './unlock-check';
import { greedyPlay, unlockReach, type Witness } from './unlock-reach';
import { unlockModel, type KnownGain, type OrderedLevel, type UnlockModel } from './unlock-model';

interface Sketch {
  readonly rules: readonly UnlockRule[];
  readonly gains?: Readonly<Record<string, readonly [number, number]>>;
  readonly resets?: readonly string[];
}

const shards: CarriedValue = { id: 'shards', name: 'Shards', start: 0, counts: 'once', order: 'a' };
const heat: CarriedValue = { id: 'heat', name: 'Heat', start: 0, counts: 'each time', order: 'b' };

function model(sketches: readonly Sketch[], values: readonly CarriedValue[] = [shards]): UnlockModel {
  const levels = sketches.map(({ rules, gains = {}, resets = [] }, i): OrderedLevel => {
    const id = String.fromCharCode(97 + i);
    const known = Object.entries(gains).map(([value, [least, most]]): [string, KnownGain] => [value, { least, most }]);
    return { id, name: id.toUpperCase(), rules, gains: new Map(known), resets: new Set(resets) };
  });
  return { levels, byId: new Map(levels.map((level) => [level.id, level])), values, hasRules: levels.some(({ rules }) => rules.length > 0) };
}

const start: UnlockRule = { kind: 'start' };
const after = (levels: string, need: 'all' | 'any' = 'all'): UnlockRule => ({ kind: 'after', levels: [...levels], need });
const at = (least: number, value = 'shards'): UnlockRule => ({ kind: 'value', value, least });
const codes = (of: UnlockModel): string[] => checkUnlocking(of).findings.map(({ id }) => id);

/** Plays a witness step by step under the plain rules; fails where a step is not allowed. */
function replay(of: UnlockModel, { steps }: Pick<Witness, 'steps'>, sparing?: string, until?: string): PlayState {
  let state = startOfPlay(of);
  for (const { level: id, times } of steps) {
    const level = of.byId.get(id) as OrderedLevel;
    for (let i = 0; i < times; i++) {
      if (!state.open.has(id)) state = typeCode(of, state, id);
      const first = !state.played.has(id);
      const collected = of.values.map(({ id: value, counts }) => {
        const gain = level.gains.get(value);
        return [value, gain && (first || counts === 'each time') ? (value === sparing && id !== until ? gain.least : gain.most) : 0];
      });
      state = playLevel(of, state, { level: id, collected: Object.fromEntries(collected) as Record<string, number> });
    }
  }
  return state;
}

describe('the check of unlocking', () => {
  it('finds nothing in a plain line', () => {
    expect(codes(model([{ rules: [start] }, { rules: [after('a')] }, { rules: [after('b')] }]))).toEqual([]);
    expect(codes(model([{ rules: [] }, { rules: [] }]))).toEqual([]);
  });

  it('proves that a level can never open, and why, and that a threshold is above what there is', () => {
    const of = model([
      { rules: [start], gains: { shards: [0, 10] } },
      { rules: [after('a')], gains: { shards: [0, 21] } },
      { rules: [at(40)], gains: { shards: [0, 30] } },
      { rules: [after('c')] },
    ]);
    const { findings } = checkUnlocking(of);
    expect(findings.map(({ id }) => id)).toEqual(['LEVEL_NEVER_OPENS:c', 'THRESHOLD_TOO_HIGH:c.0', 'LEVEL_NEVER_OPENS:d']);
    expect(findings[0].why).toBe('at 40 Shards: at most 31 can be collected. Played whole, with all there is to collect, it is still closed: A → B');
    expect(findings[1].message).toBe('C opens at 40 Shards, but at most 31 can be collected by then');
    expect(findings[2].why).toContain('after C: C can never open');
  });

  it('finds a missing start, a ring, and what is sent back', () => {
    expect(codes(model([{ rules: [after('b')] }, { rules: [after('a')] }]))).toEqual(['START_MISSING:collection', 'LEVEL_NEVER_OPENS:a', 'LEVEL_NEVER_OPENS:b']);
    expect(codes(model([{ rules: [start] }, { rules: [after('c')] }, { rules: [after('a')] }]))).toEqual(['SENDS_BACK:b.0']);
  });

  it('finds levels that open at the same moment', () => {
    expect(codes(model([{ rules: [start] }, { rules: [after('a')] }, { rules: [after('a', 'any')] }]))).toEqual(['SAME_MOMENT:b.same.b+c']);
  });

  it('finds a value that a reset takes from a later rule, with a way that leads there', () => {
    // A gives up to 10, B resets, C needs 8: who collects 7 or less in A and goes on to B has lost it.
    const of = model([{ rules: [start], gains: { shards: [0, 10] } }, { rules: [after('a')], resets: ['shards'] }, { rules: [at(8)] }]);
    const [finding] = checkUnlocking(of).findings;
    expect(finding.id).toBe('VALUE_LOST:c.0.lost');
    expect(finding.place.path).toEqual(['a', 'b']);
    expect(finding.why).toContain('at most 0 are left');
    // With enough left behind the reset nothing is lost.
    expect(codes(model([{ rules: [start], gains: { shards: [0, 10] } }, { rules: [after('a')], resets: ['shards'], gains: { shards: [0, 9] } }, { rules: [at(8)] }]))).toEqual([]);
    // A gives at least 8: C is open before B.
    expect(codes(model([{ rules: [start], gains: { shards: [8, 10] } }, { rules: [after('a')], resets: ['shards'] }, { rules: [at(8)] }]))).toEqual([]);
  });

  it('finds a rule that fires again and again, and collects again what is given each time', () => {
    const of = model([{ rules: [start], gains: { heat: [0, 3] } }, { rules: [after('a')], resets: ['heat'] }, { rules: [at(10, 'heat')] }], [heat]);
    const { findings, witness } = checkUnlocking(of);
    expect(findings.map(({ id }) => id)).toEqual(['RULE_FIRES_AGAIN:c.0.again']);
    expect(findings[0].why).toContain('B → A × 4');
    expect(witness.steps).toContainEqual({ level: 'a', times: 4 });
    expect([...replay(of, witness).open].sort()).toEqual(['a', 'b', 'c']);
  });

  it('says "not decided" where the bound allows what the way does not reach', () => {
    // Both B and C reset; their 5 and 5 never add up, which the bound does not see.
    const both = { resets: ['shards'], gains: { shards: [0, 5] as const } };
    const of = model([{ rules: [start] }, { rules: [after('a')], ...both }, { rules: [after('b')], ...both }, { rules: [at(10)] }]);
    expect(codes(of)).toContain('LEVEL_NOT_DECIDED:d');
  });

  it('reads the most of a gain from a field of the level', () => {
    const level = { id: 'a', name: 'A', set: 's', order: 'a', purpose: 'play', binned: null, values: { shards: 12 } };
    const of = unlockModel({
      field: {},
      level: { a: level as never },
      set: { s: { id: 's', name: 'S', parent: null, order: 'a', binned: null } },
      carriedValue: { shards },
      levelOrder: { a: { id: 'a', rules: [start], gains: [{ value: 'shards', least: 0, most: 0, field: 'shards' }], resets: [] } },
    });
    expect(of.levels[0].gains.get('shards')).toEqual({ least: 0, most: 12 });
  });

  it('reads the most of a gain from what was counted, and rules nothing out by what was not', () => {
    const level = (id: string, order: string) => ({ id, name: id, set: 's', order, purpose: 'play', binned: null, values: {} }) as never;
    const field = { id: 'f', key: 'finds', name: 'Finds', type: 'whole number' as const, choices: [], order: 'a', figure: 'markers' as const, counted: 'pickup' };
    const tables = {
      field: { f: field },
      level: { a: level('a', 'a'), b: level('b', 'b') },
      set: { s: { id: 's', name: 'S', parent: null, order: 'a', binned: null } },
      carriedValue: { shards },
      levelOrder: {
        a: { id: 'a', rules: [start], gains: [{ value: 'shards', least: 0, most: 0, field: 'finds' }], resets: [] },
        b: { id: 'b', rules: [at(5)], gains: [], resets: [] },
      },
    };
    const found = (count: number | null) => codes(unlockModel(tables, (_level, { counted }) => (counted === 'pickup' ? count : null)));
    expect(found(5)).toEqual([]);
    expect(found(4)).toContain('LEVEL_NEVER_OPENS:b');
    expect(found(null)).toEqual(['LEVEL_NOT_DECIDED:b']);
  });

  it('begins a play in the middle: the level is open whatever its rules, and what its values open', () => {
    const of = model([{ rules: [start] }, { rules: [after('a')] }, { rules: [at(7)] }, { rules: [at(8)] }]);
    const state = playFrom(of, { level: 'b', values: { shards: 7, gone: 3 } });
    expect([[...state.open].sort(), [...state.values]]).toEqual([['a', 'b', 'c'], [['shards', 7]]]);
    expect([...playFrom(of, { level: 'nowhere', values: {} }).open]).toEqual(['a']);
  });
});

/** Every state that play can come to from another, with whole amounts; the truth for small collections. */
function everyState(of: UnlockModel, from: PlayState): PlayState[] {
  const seen = new Map<string, PlayState>();
  const queue = [from];
  while (queue.length > 0 && seen.size < 3000) {
    const state = queue.pop() as PlayState;
    const key = JSON.stringify([[...state.open].sort(), [...state.played].sort(), [...state.values]]);
    if (seen.has(key)) continue;
    seen.set(key, state);
    for (const level of of.levels) {
      if (!state.open.has(level.id)) continue;
      const gain = state.played.has(level.id) ? undefined : level.gains.get('shards');
      for (let amount = gain?.least ?? 0; amount <= (gain?.most ?? 0); amount++) queue.push(playLevel(of, state, { level: level.id, collected: { shards: amount } }));
    }
  }
  return [...seen.values()];
}

describe('against every state of small collections', () => {
  const ids = fc.subarray(['a', 'b', 'c', 'd'], { minLength: 1 });
  const rule = fc.oneof(
    fc.constant(start),
    fc.constant<UnlockRule>({ kind: 'code' }),
    fc.tuple(ids, fc.constantFrom<'all' | 'any'>('all', 'any')).map(([levels, need]): UnlockRule => ({ kind: 'after', levels, need })),
    fc.integer({ min: 1, max: 6 }).map((least) => at(least)),
  );
  const sketch = fc.record({
    rules: fc.array(rule, { maxLength: 2 }),
    gains: fc.option(
      fc.tuple(fc.integer({ min: 0, max: 1 }), fc.integer({ min: 1, max: 2 })).map((shardsGain) => ({ shards: shardsGain })),
      { nil: undefined },
    ),
    resets: fc.constantFrom<readonly string[]>([], [], ['shards']),
  });

  it('"never" is never wrong, and every way that is shown can be played', () => {
    fc.assert(
      fc.property(fc.array(sketch, { minLength: 1, maxLength: 4 }), (sketches) => {
        const of = model(sketches);
        const begun = of.levels.reduce((state, { id, rules }) => (rules.some(({ kind }) => kind === 'code') ? typeCode(of, state, id) : state), startOfPlay(of));
        const states = everyState(of, begun);
        const opened = new Set(states.flatMap(({ open }) => [...open]));
        const { openable, highest } = unlockReach(of);
        for (const id of opened) expect(openable.has(id)).toBe(true);
        for (const { values } of states) expect(values.get('shards')).toBeLessThanOrEqual(highest.get('shards') ?? NaN);
        const witness = greedyPlay(of);
        const end = replay(of, witness);
        expect(end.values).toEqual(witness.amounts);
        for (const id of end.open) expect(witness.opened.has(id)).toBe(true);
        for (const { code, place, subject } of checkUnlocking(of).findings) {
          if (code !== 'VALUE_LOST') continue;
          const wanted = subject.split('.')[0];
          const until = place.path?.at(-1);
          const state = replay(of, { steps: (place.path ?? []).map((level) => ({ level, times: 1 })) }, 'shards', until);
          expect(state.open.has(wanted)).toBe(false);
          // From there on nothing opens it any more.
          expect(everyState(of, state).some(({ open }) => open.has(wanted))).toBe(false);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('playing step by step', () => {
  it('refuses what is closed, what gives less or more, and a code that opens nothing', () => {
    const of = model([{ rules: [start], gains: { shards: [1, 4] } }, { rules: [at(4)] }, { rules: [{ kind: 'code' }] }]);
    const begun = startOfPlay(of);
    expect(() => playLevel(of, begun, { level: 'b', collected: {} })).toThrow('B is not open');
    expect(() => playLevel(of, begun, { level: 'a', collected: { shards: 5 } })).toThrow('A gives 1 to 4 Shards, not 5');
    expect(() => playLevel(of, begun, { level: 'a', collected: {} })).toThrow('not 0');
    expect(() => typeCode(of, begun, 'b')).toThrow('does not open by a code');
    expect(typeCode(of, begun, 'c').open.has('c')).toBe(true);
    const played = playLevel(of, begun, { level: 'a', collected: { shards: 4 } });
    expect([...played.open]).toEqual(['a', 'b']);
    // It is given once.
    expect(() => playLevel(of, played, { level: 'a', collected: { shards: 1 } })).toThrow('gives 0 to 0');
  });
});

describe('the graph of the order', () => {
  it('stands in layers without overlap, and leaves out what is not there', () => {
    const input = {
      nodes: ['a', 'b', 'c'],
      edges: [
        { from: 'a', to: 'b', text: '' },
        { from: 'a', to: 'c', text: '' },
        { from: 'gone', to: 'c', text: '' },
        { from: 'c', to: 'c', text: '' },
      ],
    };
    const graph = layoutOrderGraph(input, createRunContext());
    const [a, b, c] = graph.nodes;
    expect(b.y).toBeGreaterThanOrEqual(a.y + ORDER_NODE.height);
    expect(b.y).toBe(c.y);
    expect(Math.abs(b.x - c.x)).toBeGreaterThanOrEqual(ORDER_NODE.width);
    expect(graph.edges.map(({ from, to }) => from + to)).toEqual(['ab', 'ac']);
    expect(graph.edges[0].points.length).toBeGreaterThan(1);
    expect(layoutOrderGraph(input, createRunContext())).toEqual(graph);
    expect(layoutOrderGraph({ nodes: [], edges: [] }, createRunContext()).nodes).toEqual([]);
  });
});
