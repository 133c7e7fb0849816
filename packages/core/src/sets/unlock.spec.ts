import fc from 'fast-check';
import type { CarriedValue, UnlockRule } from '../model/unlock';
import { playFrom, playLevel, startOfPlay, typeCode, type PlayState } from './play-through';
import { createRunContext } from '../context/run-context';
import { layoutOrderGraph } from './order-graph';
import { ORDER_NODE } from './order-node';
import { askAllStates } from './play-cones';
import type { PlayedStep } from './play-analysis';
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
  return {
    levels,
    byId: new Map(levels.map((level) => [level.id, level])),
    values,
    hasRules: levels.some(({ rules }) => rules.length > 0),
  };
}

const start: UnlockRule = { kind: 'start' };
const after = (levels: string, need: 'all' | 'any' = 'all'): UnlockRule => ({
  kind: 'after',
  levels: [...levels],
  need,
});
const at = (least: number, value = 'shards'): UnlockRule => ({ kind: 'value', value, least });
const codes = (of: UnlockModel): string[] => checkUnlocking(of).findings.map(({ id }) => id);

/** Plays a witness step by step under the plain rules; fails where a step is not allowed. */
function replay(of: UnlockModel, { steps }: Pick<Witness, 'steps'>): PlayState {
  let state = startOfPlay(of);
  for (const { level: id, times } of steps) {
    const level = of.byId.get(id) as OrderedLevel;
    for (let i = 0; i < times; i++) {
      if (!state.open.has(id)) state = typeCode(of, state, id);
      const first = !state.played.has(id);
      const collected = of.values.map(({ id: value, counts }) => {
        const gain = level.gains.get(value);
        return [value, gain && (first || counts === 'each time') ? gain.most : 0];
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

  it('proves that a level can never unlock, and why, and that a threshold is above what there is', () => {
    const of = model([
      { rules: [start], gains: { shards: [0, 10] } },
      { rules: [after('a')], gains: { shards: [0, 21] } },
      { rules: [at(40)], gains: { shards: [0, 30] } },
      { rules: [after('c')] },
    ]);
    const { findings } = checkUnlocking(of);
    expect(findings.map(({ id }) => id)).toEqual([
      'LEVEL_NEVER_OPENS:c',
      'THRESHOLD_TOO_HIGH:c.0',
      'LEVEL_NEVER_OPENS:d',
    ]);
    expect(findings[0].why).toBe(
      'at 40 Shards: at most 31 can be collected. Stays locked even with everything collected: A → B',
    );
    expect(findings[1].message).toBe('C unlocks at 40 Shards, but at most 31 can be collected by then');
    expect(findings[2].why).toContain('after C: C can never unlock');
  });

  it('finds a missing start, a ring, and what is sent back', () => {
    expect(codes(model([{ rules: [after('b')] }, { rules: [after('a')] }]))).toEqual([
      'START_MISSING:collection',
      'LEVEL_NEVER_OPENS:a',
      'LEVEL_NEVER_OPENS:b',
    ]);
    expect(codes(model([{ rules: [start] }, { rules: [after('c')] }, { rules: [after('a')] }]))).toEqual([
      'SENDS_BACK:b.0',
    ]);
  });

  it('finds levels that open at the same moment', () => {
    expect(codes(model([{ rules: [start] }, { rules: [after('a')] }, { rules: [after('a', 'any')] }]))).toEqual([
      'SAME_MOMENT:b.same.b+c',
    ]);
  });

  it('finds a level that a reset can shut, with a play that leads there', () => {
    // A gives up to 10, B resets, C needs 8: who collects 7 or less in A and goes on to B has lost it.
    const of = model([
      { rules: [start], gains: { shards: [0, 10] } },
      { rules: [after('a')], resets: ['shards'] },
      { rules: [at(8)] },
    ]);
    const [finding] = checkUnlocking(of).findings;
    expect(finding.id).toBe('LEVEL_SHUT:c.shut');
    expect(finding.place.path).toEqual(['a']);
    expect(finding.why).toBe('Played like this, nothing unlocks it any more: A (0 Shards).');
    // What is left behind the reset still opens it, unless that is left lying too.
    const late = { rules: [after('a')], resets: ['shards'], gains: { shards: [9, 9] as const } };
    expect(codes(model([{ rules: [start], gains: { shards: [0, 10] } }, late, { rules: [at(8)] }]))).toEqual([]);
    // A gives at least 8: C is open before B.
    expect(
      codes(
        model([
          { rules: [start], gains: { shards: [8, 10] } },
          { rules: [after('a')], resets: ['shards'] },
          { rules: [at(8)] },
        ]),
      ),
    ).toEqual([]);
  });

  it('finds a level that is shut where a reward given once is missed', () => {
    expect(codes(model([{ rules: [start], gains: { shards: [1, 3] } }, { rules: [at(3)] }]))).toEqual([
      'LEVEL_SHUT:b.shut',
    ]);
    const typed = { rules: [{ kind: 'code' as const }], gains: { shards: [1, 3] as const }, resets: ['shards'] };
    const of = model([{ rules: [start], gains: { shards: [1, 1] } }, { rules: [at(2)] }, typed]);
    expect(checkUnlocking(of).findings.map(({ id, place }) => [id, place.path])).toEqual([
      ['LEVEL_SHUT:b.shut', ['a', 'c']],
    ]);
    // Collected again each time it can't be missed.
    expect(
      codes(model([{ rules: [start], gains: { heat: [0, 1] } }, { rules: [at(300000, 'heat')] }], [heat])),
    ).toEqual([]);
  });

  it('says which levels it could not decide, nor where amounts are not whole', () => {
    const many = Array.from({ length: 20 }, (): Sketch => ({ rules: [start], gains: { shards: [0, 5] } }));
    // Without a reset the least decides, however many states there are and whatever the amounts.
    expect(codes(model([...many, { rules: [at(90)] }]))).toContain('LEVEL_SHUT:u.shut');
    expect(codes(model([{ rules: [start], gains: { shards: [0.5, 3] } }, { rules: [at(3)] }]))).toEqual([
      'LEVEL_SHUT:b.shut',
    ]);
    const waiting = checkUnlocking(
      model([{ rules: [start], gains: { shards: [0, 1e6] } }, { rules: [at(2)] }, { rules: [after('b')] }]),
    ).findings;
    expect(waiting.map(({ id, why }) => [id, why])).toEqual([
      ['LEVEL_SHUT:b.shut', 'Played like this, nothing unlocks it any more: A (0 Shards). C waits for it.'],
    ]);
    const back: Sketch = { rules: [start], resets: ['shards'] };
    expect(codes(model([...many, back, { rules: [at(90)] }]))).toContain('SHUT_NOT_DECIDED:v.shut');
    expect(
      codes(
        model([{ rules: [start], gains: { shards: [0.5, 3] } }, { ...back, rules: [after('a')] }, { rules: [at(3)] }]),
      ),
    ).toEqual(['SHUT_NOT_DECIDED:c.shut']);
  });

  it('never opens by an empty list of levels', () => {
    const empty: UnlockRule = { kind: 'after', levels: [], need: 'all' };
    const of = model([{ rules: [start] }, { rules: [empty] }]);
    expect(codes(of)).toEqual(['LEVEL_NEVER_OPENS:b']);
    expect([...startOfPlay(of).open]).toEqual(['a']);
  });

  it('finds a rule that can be triggered again and again, and collects again what is given each time', () => {
    const of = model(
      [
        { rules: [start], gains: { heat: [0, 3] } },
        { rules: [after('a')], resets: ['heat'] },
        { rules: [at(10, 'heat')] },
      ],
      [heat],
    );
    const { findings, witness } = checkUnlocking(of);
    expect(findings.map(({ id }) => id)).toEqual(['RULE_FIRES_AGAIN:c.0.again']);
    expect(findings[0].why).toContain('B → A × 4');
    expect(witness.steps).toContainEqual({ level: 'a', times: 4 });
    expect([...replay(of, witness).open].sort()).toEqual(['a', 'b', 'c']);
  });

  it('tries all plays where the bound allows what the way does not reach, and says "not decided" where they are too many', () => {
    // Both B and C reset; their 5 and 5 never add up, which the bound does not see.
    const both = { resets: ['shards'], gains: { shards: [0, 5] as const } };
    const of = model([
      { rules: [start] },
      { rules: [after('a')], ...both },
      { rules: [after('b')], ...both },
      { rules: [at(10)] },
    ]);
    expect(codes(of)).toContain('LEVEL_NEVER_OPENS:d');
    const many = Array.from({ length: 20 }, (): Sketch => ({ rules: [start], gains: { shards: [0, 5] } }));
    expect(
      codes(model([...many, { ...both, rules: [start], gains: { shards: [0, 90] } }, { rules: [at(150)] }])),
    ).toContain('LEVEL_NOT_DECIDED:v');
  });

  it('reads the most of a gain from a field of the level', () => {
    const level = { id: 'a', name: 'A', set: 's', order: 'a', purpose: 'play', binned: null, values: { shards: 12 } };
    const of = unlockModel({
      field: {},
      level: { a: level as never },
      set: { s: { id: 's', name: 'S', parent: null, order: 'a', binned: null } },
      carriedValue: { shards },
      levelOrder: {
        a: { id: 'a', rules: [start], gains: [{ value: 'shards', least: 0, most: 0, field: 'shards' }], resets: [] },
      },
    });
    expect(of.levels[0].gains.get('shards')).toEqual({ least: 0, most: 12 });
  });

  it('reads the most of a gain from what was counted, and rules nothing out by what was not', () => {
    const level = (id: string, order: string) =>
      ({ id, name: id, set: 's', order, purpose: 'play', binned: null, values: {} }) as never;
    const field = {
      id: 'f',
      key: 'finds',
      name: 'Finds',
      type: 'whole number' as const,
      choices: [],
      order: 'a',
      figure: 'markers' as const,
      counted: 'pickup',
    };
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
    const found = (count: number | null) =>
      codes(unlockModel(tables, (_level, { counted }) => (counted === 'pickup' ? count : null)));
    // Whoever leaves one lying shuts B.
    expect(found(5)).toEqual(['LEVEL_SHUT:b.shut']);
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

/** What is true of a small collection: every state that play can come to, from one to the next, with whole amounts. */
class PlainPlay {
  readonly states: PlayState[] = [];
  readonly next: number[][] = [];
  private readonly index = new Map<string, number>();

  constructor(private readonly of: UnlockModel) {
    const begun = of.levels.reduce(
      (state, { id, rules }) => (rules.some(({ kind }) => kind === 'code') ? typeCode(of, state, id) : state),
      startOfPlay(of),
    );
    this.put(begun);
    for (let i = 0; i < this.states.length && this.states.length < 4000; i++)
      this.next.push(this.movesFrom(this.states[i]));
  }

  get isWhole(): boolean {
    return this.next.length === this.states.length;
  }

  put(state: PlayState): number {
    // Nothing asks for more than 9; what is given each time would never end.
    const values = new Map([...state.values].map(([id, amount]): [string, number] => [id, Math.min(amount, 9)]));
    const key = JSON.stringify([[...state.open].sort(), [...state.played].sort(), [...values]]);
    const known = this.index.get(key) ?? this.states.push({ ...state, values }) - 1;
    this.index.set(key, known);
    return known;
  }

  private movesFrom(state: PlayState): number[] {
    return this.of.levels.flatMap((level) => {
      if (!state.open.has(level.id)) return [];
      const first = !state.played.has(level.id);
      const choices = this.of.values.map(({ id, counts }) => {
        const gain = first || counts === 'each time' ? level.gains.get(id) : undefined;
        return Array.from({ length: (gain?.most ?? 0) - (gain?.least ?? 0) + 1 }, (_, k): [string, number] => [
          id,
          (gain?.least ?? 0) + k,
        ]);
      });
      const all = choices.reduce<[string, number][][]>(
        (rows, choice) => rows.flatMap((row) => choice.map((one) => [...row, one])),
        [[]],
      );
      return all.map((collected) =>
        this.put(playLevel(this.of, state, { level: level.id, collected: Object.fromEntries(collected) })),
      );
    });
  }

  reaches(from: number): Set<number> {
    const seen = new Set([from]);
    for (const at of seen) for (const to of this.next[at]) seen.add(to);
    return seen;
  }

  /** From each state, whether a level is open now or some time later. */
  opensFrom(id: string): boolean[] {
    const good = this.states.map(({ open }) => open.has(id));
    for (let grew = true; grew;) {
      grew = false;
      this.next.forEach((moves, i) => {
        if (good[i] || !moves.some((to) => good[to])) return;
        good[i] = true;
        grew = true;
      });
    }
    return good;
  }

  comesUpAgain(value: string, least: number): boolean {
    const amount = (state: number) => this.states[state].values.get(value) ?? 0;
    return this.next.some(
      (moves, from) => amount(from) < least && moves.some((to) => amount(to) >= least && this.reaches(to).has(from)),
    );
  }
}

describe('against every state of small collections', () => {
  const values = fc.constantFrom('shards', 'heat');
  const ids = fc.subarray(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'], { minLength: 1, maxLength: 3 });
  const rule = fc.oneof(
    fc.constant(start),
    fc.constant<UnlockRule>({ kind: 'code' }),
    fc
      .tuple(ids, fc.constantFrom<'all' | 'any'>('all', 'any'))
      .map(([levels, need]): UnlockRule => ({ kind: 'after', levels, need })),
    fc.tuple(fc.integer({ min: 1, max: 6 }), values).map(([least, value]) => at(least, value)),
  );
  const sketch = fc.record({
    rules: fc.array(rule, { maxLength: 2 }),
    gains: fc.dictionary(values, fc.tuple(fc.integer({ min: 0, max: 1 }), fc.integer({ min: 1, max: 2 })), {
      maxKeys: 1,
    }),
    resets: fc.constantFrom<readonly string[]>([], [], [], ['shards'], ['heat']),
  });

  it('every finding is true, and none is missing', () => {
    let whole = 0;
    fc.assert(
      fc.property(fc.array(sketch, { minLength: 1, maxLength: 8 }), (sketches) => {
        const of = model(sketches, [shards, heat]);
        const plain = new PlainPlay(of);
        if (!plain.isWhole) return;
        whole++;
        const { openable, highest } = unlockReach(of);
        const opened = new Set(plain.states.flatMap(({ open }) => [...open]));
        for (const id of opened) expect(openable.has(id)).toBe(true);
        for (const { values: amounts } of plain.states)
          for (const [id, amount] of amounts) expect(amount).toBeLessThanOrEqual(highest.get(id) ?? NaN);
        const witness = greedyPlay(of);
        const end = replay(of, witness);
        expect(end.values).toEqual(witness.amounts);
        for (const id of end.open) expect(witness.opened.has(id)).toBe(true);
        const { findings } = checkUnlocking(of);
        const said = (code: string) => new Set(findings.flatMap((one) => (one.code === code ? [one.subject] : [])));
        if (!of.hasRules) return;
        const ids = of.levels.map(({ id }) => id);
        expect([...said('LEVEL_NOT_DECIDED'), ...said('SHUT_NOT_DECIDED')]).toEqual([]);
        expect(said('LEVEL_NEVER_OPENS')).toEqual(new Set(ids.filter((id) => !opened.has(id))));
        const shut = ids.filter((id) => opened.has(id) && plain.opensFrom(id).includes(false));
        expect(said('LEVEL_SHUT')).toEqual(
          new Set(
            shut.filter((id) => of.byId.get(id)?.rules.some(({ kind }) => kind === 'value')).map((id) => `${id}.shut`),
          ),
        );
        // Those that no value opens are shut by another that is.
        if (shut.length > 0) expect(said('LEVEL_SHUT').size).toBeGreaterThan(0);
        const rules = of.levels.flatMap(({ id, rules: own }) =>
          own.flatMap((one, i) => (one.kind === 'value' ? [{ id: `${id}.${i}`, ...one }] : [])),
        );
        expect(said('THRESHOLD_TOO_HIGH')).toEqual(
          new Set(
            rules
              .filter(({ value, least }) => !plain.states.some((state) => (state.values.get(value) ?? 0) >= least))
              .map(({ id }) => id),
          ),
        );
        expect(said('RULE_FIRES_AGAIN')).toEqual(
          new Set(
            rules
              .filter(({ value, least }) => value === 'heat' && plain.comesUpAgain(value, least))
              .map(({ id }) => `${id}.again`),
          ),
        );
        for (const { code, subject, place } of findings) {
          if (code !== 'LEVEL_SHUT') continue;
          // The way that is shown can be played, and leads where nothing opens the level.
          const steps = checkWay(of, subject.split('.')[0], plain);
          expect(steps.map(({ level }) => level)).toEqual(place.path);
        }
      }),
      { numRuns: Number(process.env.STRAVEL_PLAYS ?? 150) },
    );
    expect(whole).toBeGreaterThan(100);
  }, 600000);
});

/** Plays the way that shuts a level; fails where a step is not allowed or the level can still be opened. */
function checkWay(of: UnlockModel, id: string, plain: PlainPlay): readonly PlayedStep[] {
  const steps = askAllStates(of, unlockReach(of), greedyPlay(of)).get(id)?.shut.get(id) ?? [];
  let state = of.levels.reduce(
    (begun, { id: one, rules }) => (rules.some(({ kind }) => kind === 'code') ? typeCode(of, begun, one) : begun),
    startOfPlay(of),
  );
  for (const { level, times, collected } of steps) {
    for (let i = 0; i < times; i++) {
      // What a level gives besides bears on nothing that the way is about.
      const all = of.values.map(({ id: value, counts }): [string, number] => {
        const gain =
          counts === 'each time' || !state.played.has(level) ? of.byId.get(level)?.gains.get(value) : undefined;
        return [value, gain ? (collected[value] ?? gain.least) : 0];
      });
      state = playLevel(of, state, { level, collected: Object.fromEntries(all) });
    }
  }
  expect(plain.opensFrom(id)[plain.put(state)]).toBe(false);
  return steps;
}

describe('playing step by step', () => {
  it('refuses what is closed, what gives less or more, and a code that opens nothing', () => {
    const of = model([
      { rules: [start], gains: { shards: [1, 4] } },
      { rules: [at(4)] },
      { rules: [{ kind: 'code' }] },
    ]);
    const begun = startOfPlay(of);
    expect(() => playLevel(of, begun, { level: 'b', collected: {} })).toThrow('B is not unlocked');
    expect(() => playLevel(of, begun, { level: 'a', collected: { shards: 5 } })).toThrow(
      'A gives 1 to 4 Shards, not 5',
    );
    expect(() => playLevel(of, begun, { level: 'a', collected: {} })).toThrow('not 0');
    expect(() => typeCode(of, begun, 'b')).toThrow('does not unlock by a code');
    expect(typeCode(of, begun, 'c').open.has('c')).toBe(true);
    const played = playLevel(of, begun, { level: 'a', collected: { shards: 4 } });
    expect([...played.open]).toEqual(['a', 'b']);
    // It is given once.
    expect(() => playLevel(of, played, { level: 'a', collected: { shards: 1 } })).toThrow('gives 0 to 0');
  });
});

describe('the graph of the order', () => {
  it('stands in layers without overlap, and leaves out what is missing', () => {
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
