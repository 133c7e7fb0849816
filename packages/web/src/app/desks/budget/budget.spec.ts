import type { Device, Level, LevelSet, SetNode } from '@stravel/core';
import fc from 'fast-check';
import type { LevelBakes } from '../../bakes/bakes-store';
import { markOf } from '../../bakes/figure-mark';
import { budgetRows } from './budget-rows';
import { columnUnits } from '../../bakes/core-bands';
import { budgetCsvRows } from './budget-csv';
import { MAX_LEVEL_BARS, chartGroups } from './chart-bars';
import { partsOf } from './level-parts';
import { spreadLabels } from './parts/spread-labels';
import { budgetActions, budgetFeature } from './store/budget-store';

const device = (id: string, triangles: number): Device =>
  ({
    id,
    name: id,
    budget: { triangles, drawCalls: 10, memoryBytes: 1e6, loadMs: 1e6, diskBytes: 1e6 },
    seekMs: 1,
    diskBytesPerSecond: 1e6,
    unpackBytesPerSecond: 1e6,
    activationSliceMs: 1,
    activationBytesPerMs: 1000,
    framesPerSecond: 50,
  }) as Device;

const load = {
  files: 1,
  memoryBytes: 1,
  diskBytes: 1,
  isCut: false,
  kits: { files: 0, memoryBytes: 0, diskBytes: 0 },
  own: { files: 1, memoryBytes: 1, diskBytes: 1 },
  strata: [],
};

/** Bakes of a level whose worst place shows so many triangles, and all of whose content is so many. */
const bakes = (level: string, worst: number | undefined, bound: number, isFresh = true): LevelBakes => {
  const state = worst === undefined ? 'none' : isFresh ? 'fresh' : 'stale';
  const spot = { triangles: worst, drawCalls: 1, strata: [], causes: [] };
  return {
    level,
    count: { strata: [], findings: [], tally: {}, triangles: bound, bound: { triangles: bound, drawCalls: 1 }, load },
    sight: { state, key: null, current: null, summary: null },
    figures: {
      state,
      key: null,
      current: null,
      summary: worst === undefined ? null : { strata: [], worst: [spot], worstDrawCalls: spot, sightFileBytes: 0 },
    },
    rehearsals: [],
  } as unknown as LevelBakes;
};

const level = (id: string, purpose = 'play'): Level => ({ id, name: id, purpose }) as Level;
const node = (id: string, levels: readonly Level[], sets: readonly SetNode[] = []): SetNode => ({
  set: { id, name: id } as LevelSet,
  depth: 0,
  sets,
  levels,
});
const numbered = (ids: readonly string[]) => new Map(ids.map((id, i) => [id, i + 1]));

describe('rows of the budget', () => {
  const ids = ['within', 'near', 'over', 'far over', 'stale', 'bound', 'open', 'empty'];
  const held: Record<string, LevelBakes> = {
    within: bakes('within', 50, 900),
    near: bakes('near', 90, 900),
    over: bakes('over', 101, 900),
    'far over': bakes('far over', 500, 900),
    stale: bakes('stale', 95, 900, false),
    bound: bakes('bound', undefined, 99),
    open: bakes('open', undefined, 101),
    'a test': bakes('a test', 10, 900),
  };
  const tree = [
    node('first', [], [node('inner', [...ids.map((id) => level(id)), level('a test', 'test'), level('idle', 'tool')])]),
    node('bare', []),
  ];
  const rows = (...devices: Device[]) => budgetRows({ tree, bakes: held, numbers: numbered(ids), devices });

  it('have the worst level first, what is not known just below what is over, and no set without levels', () => {
    const [set, ...others] = rows(device('weak', 100));
    expect(others).toEqual([]);
    expect(set.levels.map(({ id }) => id)).toEqual([
      'far over',
      'over',
      'open',
      'empty',
      'bound',
      'stale',
      'near',
      'within',
      'a test',
    ]);
    expect(set.levels.map(({ number }) => number).at(-1)).toBe('·');
    // What may be over and what has no content at all.
    expect(set.counts).toEqual({ over: 2, near: 1, 'not known': 2, stale: 1 });
  });

  it('hold each level against every device, and the worst of them decides', () => {
    const [{ levels }] = rows(device('strong', 1e6), device('weak', 100));
    expect(levels[0].cells.map((cells) => cells.map(({ mark }) => mark)[1])).toEqual(['within', 'over']);
    expect(levels[0].worst).toMatchObject({ device: 'weak', measure: 'triangles', mark: 'over' });
    expect(levels[0].worst.label).toBe('triangles of far over on weak: 500');
    expect(rows()).toEqual([]);
  });

  it('say of nothing that it is fine', () => {
    const [{ levels }] = rows(device('weak', 100));
    const empty = levels.find(({ id }) => id === 'empty');
    expect(empty?.bakes).toBe('no content');
    expect(new Set(empty?.cells[0].map(({ mark, text }) => `${mark} ${text}`))).toEqual(new Set(['not known ?']));
    expect(levels.find(({ id }) => id === 'open')?.bakes).toBe('never baked');
  });

  it('share the unit of the smallest limit', () => {
    const units = columnUnits([device('strong', 5e7), device('weak', 380_000)]);
    expect([units.triangles.name, units.memory.name, units['load time'].name]).toEqual(['k', 'kB', 's']);
  });
});

describe('marks of figures', () => {
  it('call over only what is known', () => {
    const of = (state: 'known' | 'bound' | 'stale' | 'not known', share: number | undefined) =>
      markOf({ state, share, value: share });
    expect([of('known', 1), of('known', 1.0001), of('known', 0.9), of('known', 0.8999)]).toEqual([
      'near',
      'over',
      'near',
      'within',
    ]);
    expect([of('stale', 3), of('bound', 1), of('not known', 3), of('not known', undefined)]).toEqual([
      'stale',
      'bound',
      'may be over',
      'not known',
    ]);
  });
});

describe('the table as a file', () => {
  it('has a row a level with every figure, its state and its share, and no figure for what is not known', () => {
    const levels = [level('one'), level('two')];
    const devices = [device('weak', 100)];
    const rows = budgetRows({
      tree: [node('a', levels)],
      bakes: { one: bakes('one', 50, 1e6) },
      numbers: numbered(['one', 'two']),
      devices,
    });
    const [header, ...lines] = budgetCsvRows(rows, devices, columnUnits(devices));
    const at = header.findIndex((title) => title.startsWith('weak: triangles'));
    expect(header.slice(0, 4)).toEqual(['Set', 'No.', 'Level', 'Bakes']);
    expect(header.slice(at + 1, at + 3)).toEqual(['weak: triangles, state', 'weak: triangles, share of limit']);
    expect(lines.every(({ length }) => length === header.length)).toBe(true);
    const figures = new Map(lines.map((line) => [line[2], line.slice(at, at + 3)]));
    expect(figures.get('two')).toEqual(['', 'not known', '']);
    expect(figures.get('one')).toEqual([expect.stringMatching(/^[0-9.]+$/), 'within', '0.5']);
  });
});

describe('bars of the chart', () => {
  const many = (count: number) => {
    const levels = Array.from({ length: count }, (_, i) => level(`l${i}`));
    const held = Object.fromEntries(levels.map(({ id }, i) => [id, bakes(id, i * 10, 1e6)]));
    return budgetRows({
      tree: [node('a', levels.slice(0, count / 2)), node('b', levels.slice(count / 2))],
      bakes: held,
      numbers: numbered(levels.map(({ id }) => id)),
      devices: [device('weak', 100)],
    });
  };

  it('are one a level in order of play, one a set where there are too many, until a set is opened', () => {
    const few = chartGroups(many(MAX_LEVEL_BARS), 'triangles', '');
    expect(few.map(({ slots }) => slots.map(({ tick }) => Number(tick)))).toEqual([
      Array.from({ length: 30 }, (_, i) => i + 1),
      Array.from({ length: 30 }, (_, i) => i + 31),
    ]);
    const [first, second] = chartGroups(many(MAX_LEVEL_BARS + 2), 'triangles', 'b');
    expect(first.slots).toHaveLength(1);
    expect(first.slots[0]).toMatchObject({ isSet: true, tick: '31', bars: [{ share: 3, mark: 'over' }] });
    expect(second.slots).toHaveLength(31);
  });
});

describe('parts of a figure', () => {
  it('are the causes of the worst place, largest first, with what leads to them', () => {
    const cause = (what: string, id: string, triangles: number) => ({
      what,
      id,
      name: id,
      count: 2,
      triangles,
      drawCalls: 9 - triangles,
    });
    const costs = {
      count: undefined,
      baked: {
        isFresh: true,
        figures: { worst: [{ causes: [cause('blocks', 'brick', 3), cause('piece', 'cart', 5)] }] },
      },
    } as unknown as Parameters<typeof partsOf>[1];
    const core = { bands: [], held: { state: 'known', value: 8, share: 1 } } as const;
    expect(partsOf('triangles', costs, undefined, core).map(({ id, name, text }) => [id, name, text])).toEqual([
      ['piece cart', 'cart', '5'],
      ['blocks brick', 'brick blocks', '3'],
    ]);
    const unknown = { bands: [], held: { state: 'not known', value: 8, share: 1 } } as const;
    expect(partsOf('triangles', costs, undefined, unknown)).toEqual([]);
  });
});

describe('labels beside a core', () => {
  it('keep their place where there is room, and never overlap', () => {
    expect(spreadLabels([10, 50, 90], 16, 160)).toEqual([10, 50, 90]);
    expect(spreadLabels([10, 11, 90], 16, 160)).toEqual([10, 26, 90]);
    expect(spreadLabels([150, 155, 160], 16, 160)).toEqual([128, 144, 160]);
    expect(spreadLabels([], 16, 160)).toEqual([]);
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 160, noNaN: true }), { maxLength: 10 }), (places) => {
        const spread = spreadLabels(
          [...places].sort((a, b) => a - b),
          16,
          160,
        );
        spread.forEach((place, i) => {
          expect(place).toBeLessThanOrEqual(160);
          if (i > 0) expect(place - spread[i - 1]).toBeGreaterThanOrEqual(16 - 1e-9);
        });
      }),
    );
  });
});

describe('state of the desk', () => {
  it('toggles chips and folded sets, and keeps the measure when a level alone is opened', () => {
    const { reducer } = budgetFeature;
    const begun = reducer(undefined, budgetActions.measureChosen({ measure: 'disk' }));
    const opened = reducer(begun, budgetActions.levelOpened({ id: 'l' }));
    expect([opened.measure, opened.opened]).toEqual(['disk', 'l']);
    const once = reducer(opened, budgetActions.chipToggled({ chip: 'over' }));
    expect(once.chips).toEqual(['over']);
    expect(reducer(once, budgetActions.chipToggled({ chip: 'over' })).chips).toEqual([]);
    expect(reducer(once, budgetActions.setFolded({ id: 's' })).folded).toEqual(['s']);
  });
});
