import type {
  Device,
  FiguresSummary,
  Level,
  LevelCosts,
  LevelCount,
  LevelLoad,
  LevelSet,
  SetNode,
} from '@stravel/core';
import { levelCore, measureText, type Measure } from './core-bands';
import { shelfInOrder, shelfRows } from './shelf-rows';
import type { LevelBakes } from './bakes-store';

const device = {
  id: 'd',
  budget: { triangles: 100, drawCalls: 10, memoryBytes: 1000, loadMs: 50, diskBytes: 500 },
  seekMs: 1,
  diskBytesPerSecond: 1e6,
  unpackBytesPerSecond: 1e6,
  activationSliceMs: 1,
  activationBytesPerMs: 1000,
  framesPerSecond: 50,
} as Device;
const stratum = (id: string, memoryBytes: number) => ({
  stratum: id,
  name: id,
  role: 'structure' as const,
  shared: false,
  blocks: 1,
  placements: 0,
  triangles: 12,
  drawCalls: 1,
  memoryBytes,
});
const figures = {
  strata: [stratum('s', 300), stratum('t', 500)],
  worst: [
    {
      pocket: 0,
      key: '0,0,0:0',
      middle: [0, 0, 0],
      things: 2,
      triangles: 120,
      drawCalls: 4,
      strata: [
        { stratum: 's', triangles: 20, drawCalls: 1 },
        { stratum: 't', triangles: 100, drawCalls: 3 },
      ],
      causes: [],
    },
  ],
  worstDrawCalls: null,
  sightFileBytes: 0,
} as unknown as FiguresSummary;
const load: LevelLoad = {
  files: 4,
  memoryBytes: 1200,
  diskBytes: 660,
  isCut: false,
  kits: { files: 2, memoryBytes: 400, diskBytes: 200 },
  own: { files: 2, memoryBytes: 0, diskBytes: 60 },
  strata: [
    { stratum: 's', diskBytes: 150 },
    { stratum: 't', diskBytes: 250 },
  ],
};
const count = (triangles: number, drawCalls: number) =>
  ({ ...figures, bound: { triangles, drawCalls }, load }) as LevelCount;
const baked = { figures, isFresh: true };

describe('core bands', () => {
  it('stand bottom first with the kit on top, for memory, baked or not', () => {
    const bands = (costs: LevelCosts, measure: Measure) =>
      levelCore(costs, device, measure).bands.map(({ id, value }) => [id, value]);
    for (const costs of [
      { count: count(1000, 1000), baked },
      { count: count(1000, 1000), baked: undefined },
    ]) {
      expect(bands(costs, 'memory')).toEqual([
        ['s', 300],
        ['t', 500],
        ['kit', 400],
      ]);
      expect(bands(costs, 'disk')).toEqual([
        ['s', 150],
        ['t', 250],
        ['level', 60],
        ['kit', 200],
      ]);
    }
    // What can't be counted is not known, whatever was baked once.
    expect(bands({ count: undefined, baked }, 'memory')).toEqual([]);
  });

  it('are what the worst pocket sees, for triangles, all content where that is enough, none where it is not known', () => {
    const values = (costs: Parameters<typeof levelCore>[0], measure: 'triangles' | 'draw calls') => {
      const { bands, held } = levelCore(costs, device, measure);
      return [held.state, bands.map(({ value }) => value)];
    };
    expect(values({ count: count(1000, 1000), baked }, 'triangles')).toEqual(['known', [20, 100]]);
    expect(values({ count: count(24, 9), baked: undefined }, 'triangles')).toEqual(['bound', [12, 12]]);
    expect(values({ count: count(24, 9), baked: undefined }, 'draw calls')).toEqual(['bound', [4.5, 4.5]]);
    expect(values({ count: count(1000, 1000), baked: undefined }, 'triangles')).toEqual(['not known', []]);
    expect(values({ count: count(1000, 1000), baked: { figures, isFresh: false } }, 'triangles')).toEqual([
      'stale',
      [20, 100],
    ]);
  });

  it('stand in one order of roles whatever the order of the strata, four bands for four strata in every measure', () => {
    const roles = ['light', 'dressing', 'base', 'dressing'] as const;
    const four = roles.map((role, i) => ({ ...stratum(`${role}${i}`, i * 100), role, drawCalls: i }));
    const worst = [{ ...figures.worst[0], strata: [{ stratum: 'light0', triangles: 20, drawCalls: 1 }] }];
    const baked = {
      figures: { ...figures, strata: four, worst, worstDrawCalls: worst[0] } as FiguresSummary,
      isFresh: true,
    };
    for (const [costs, state] of [
      [{ count: { ...count(24, 9), strata: four }, baked: undefined }, 'bound'],
      [{ count: { ...count(1000, 1000), strata: four }, baked }, 'known'],
    ] as const) {
      for (const measure of ['memory', 'triangles', 'draw calls', 'load time', 'disk'] as const) {
        const { bands, held } = levelCore(costs, device, measure);
        if (measure === 'triangles') expect(held.state).toBe(state);
        expect(bands.slice(0, 4).map(({ id }) => id)).toEqual(['base2', 'dressing1', 'dressing3', 'light0']);
      }
    }
    // 9 draw calls at most with all in view, of which strata have 2, 1, 3 and 0 of their own.
    const { bands } = levelCore({ count: { ...count(24, 9), strata: four }, baked: undefined }, device, 'draw calls');
    expect(bands.map(({ value, text }) => [value, text])).toEqual([
      [3, '2 of its own'],
      [1.5, '1 of its own'],
      [4.5, '3 of its own'],
      [0, '0 of its own'],
    ]);
  });

  it('read as a person reads them', () => {
    expect([
      measureText('memory', 96e6),
      measureText('load time', 2140),
      measureText('triangles', 412345),
      measureText('draw calls', 18),
    ]).toEqual(['96.0 MB', '2.14 s', '412 k', '18']);
  });
});

describe('the shelf', () => {
  const node = (id: string, count: number): SetNode => ({
    set: { id, name: id } as LevelSet,
    depth: 0,
    sets: [],
    levels: Array.from(
      { length: count },
      (_unused, i) => ({ id: `${id}${i}`, name: `${id}${i}`, purpose: 'play' }) as Level,
    ),
  });
  const bakes = (level: string): LevelBakes => ({
    level,
    count: count(2e9, 2e9),
    sight: { state: 'fresh', key: null, current: null, summary: null },
    figures: { state: 'fresh', key: null, current: null, summary: figures },
    rehearsals: [],
  });

  it('has a row a set and a core a level, and says what is over', () => {
    const [row] = shelfRows([node('a', 2)], {
      bakes: { a0: bakes('a0') },
      device,
      measure: 'triangles',
      selected: 'a1',
    });
    expect(row.text).toBe('2 levels · 1 over budget, 1 not known');
    expect(row.cores.map(({ total, selected }) => [total, selected])).toEqual([
      [120, false],
      [0, true],
    ]);
  });

  it('never calls a set within budget of which something is not known or older than its level', () => {
    const rich = { ...device, budget: { ...device.budget, triangles: 1e9 } };
    const text = (levels: Readonly<Record<string, LevelBakes>>): string =>
      shelfRows([node('a', 2)], { bakes: levels, device: rich, measure: 'triangles', selected: '' })[0].text;
    const stale: LevelBakes = {
      ...bakes('a1'),
      figures: { state: 'stale', key: null, current: null, summary: figures },
    };
    expect(text({})).toBe('2 levels · 2 not known');
    expect(text({ a0: bakes('a0'), a1: stale })).toBe('2 levels · 1 stale');
    expect(text({ a0: bakes('a0'), a1: bakes('a1') })).toBe('2 levels · within budget');
    const counted: LevelBakes = {
      ...bakes('a1'),
      count: count(1e9, 1e9),
      figures: { state: 'none', key: null, current: null, summary: null },
    };
    expect(text({ a0: bakes('a0'), a1: counted })).toBe('2 levels · within budget at most');
    expect(text({ a0: bakes('a0'), a1: { ...counted, count: count(2e9, 1) } })).toBe('2 levels · 1 not known');
  });

  it('gathers very many levels by set', () => {
    const rows = shelfRows([node('a', 50), node('b', 50)], {
      bakes: { a7: bakes('a7') },
      device,
      measure: 'memory',
      selected: '',
    });
    expect(rows.map(({ cores }) => cores.map(({ name, total }) => [name, total]))).toEqual([
      [['a (50)', 1200]],
      [['b (50)', 0]],
    ]);
  });

  it('stands in the order of a table, the first of very many', () => {
    const levels = [...node('a', 70).levels].reverse();
    const [row] = shelfInOrder(levels, 'By Shards', {
      bakes: { a69: bakes('a69') },
      device,
      measure: 'triangles',
      selected: '',
    });
    expect([row.name, row.text, row.cores.length]).toEqual([
      'By Shards',
      'first 60 levels · 1 over budget, 59 not known',
      60,
    ]);
    expect(row.cores.slice(0, 2).map(({ id, total }) => [id, total])).toEqual([
      ['a69', 120],
      ['a68', 0],
    ]);
    expect(shelfInOrder([], 'x', { bakes: {}, device, measure: 'triangles', selected: '' })).toEqual([]);
  });
});
