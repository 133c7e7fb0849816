import type { Rehearsal } from '@stravel/core';
import type { WalkDifference } from '@stravel/core/pack-walk';
import { differenceText } from './difference-text';
import { clockText } from './parts/walk-lanes';
import { headingOf } from './steering';
import { seriesPath, stopAt } from './walk-figures';
import { waysOf } from './walk-ways';

const difference = (change: Partial<WalkDifference>): WalkDifference => ({
  what: 'triangles',
  fromMs: 0,
  toMs: 0,
  atMs: 0,
  at: [0, 0, 0],
  forecast: 0,
  measured: 0,
  objects: [],
  objectCount: 0,
  ...change,
});

describe('the words of a difference', () => {
  const named = { p1: { name: 'Hull rib', at: [12.34, 0, -5] as const } };
  it('name the object, its place and its LODs, and how many more there are', () => {
    const objects = [{ id: 'p1', forecastLod: 2, measuredLod: 1 }];
    expect(differenceText(difference({ forecast: 100000, measured: 144000, objects, objectCount: 3 }), named)).toEqual({
      title: 'Triangles 44.0 k higher',
      detail: 'Hull rib at 12.3, -5.0 is drawn at LOD 1, forecast LOD 2, and 2 other objects',
    });
  });

  it.each([
    [-1, 0, 'p9 is drawn, forecast is not'],
    [1, -1, 'p9 is not drawn, forecast is'],
  ])('say what is drawn on one side alone: %i, %i', (forecastLod, measuredLod, detail) => {
    const objects = [{ id: 'p9', forecastLod, measuredLod }];
    const one = difference({ what: 'objects', measured: 1, objects, objectCount: 1 });
    expect(differenceText(one, named)).toEqual({ title: '1 object not as forecast', detail });
  });

  it.each([
    [{ what: 'late', cell: '6,4', forecast: 620, measured: 1070 }, 'Cell 6,4 later than forecast', '1.07 s'],
    [{ what: 'late', cell: '6,4', forecast: 620, measured: 0 }, 'Cell 6,4 earlier than forecast', '0.62 s'],
    [{ what: 'disk', forecast: 3e6, measured: 1e6 }, 'Disk queue 2.00 MB shorter', 'forecast 3.00 MB'],
    [{ what: 'start', forecast: 500, measured: 610 }, 'Load before the first step 110 ms longer', '610 ms'],
  ] as const)('tell %j', (change, title, detail) => {
    const text = differenceText(difference(change), named);
    expect(text.title).toBe(title);
    expect(text.detail).toContain(detail);
  });
});

describe('lanes', () => {
  it('find the last stop that is not after a moment', () => {
    expect([0, 0.1, 0.25, 0.5, 0.99, 1].map((share) => stopAt([0, 0.25, 0.5], share))).toEqual([0, 0, 1, 2, 2, 2]);
    expect(stopAt([], 0.5)).toBe(0);
  });

  it('draw a series in steps or straight, and nothing of none', () => {
    expect(seriesPath([0, 0.5], [1, 4], 8, false)).toBe('M0.00000 0.8750L0.50000 0.5000H1');
    expect(seriesPath([0, 0.5], [1, 4], 8, true)).toBe('M0.00000 0.8750H0.50000V0.5000H1');
    expect(seriesPath([], [], 8, true)).toBe('');
  });

  it('tell moments in minutes and tenths', () => {
    expect([0, 950, 59999, 60000, 3725500].map(clockText)).toEqual(['0:00.0', '0:00.9', '0:59.9', '1:00.0', '62:05.5']);
  });
});

describe('ways', () => {
  const rehearsal: Rehearsal = {
    id: 'r',
    level: 'l',
    name: 'Run',
    knots: [
      [0, 0],
      [1, 0],
    ],
    floorMetres: 0,
    speedMetresPerSecond: 4,
    device: 'd',
  };
  it('are the rehearsals first, what the pack has, and what was steered last', () => {
    const way = { name: 'Spawn to exit', knots: rehearsal.knots, floorMetres: 2 };
    const ways = waysOf([rehearsal], [way], { ...way, name: 'Steered way' });
    expect(ways.map(({ name, speedMetresPerSecond, device }) => [name, speedMetresPerSecond, device])).toEqual([
      ['Run', 4, 'd'],
      ['Spawn to exit', undefined, undefined],
      ['Steered way', undefined, undefined],
    ]);
    expect(new Set(ways.map(({ id }) => id)).size).toBe(3);
  });

  it('are steered by turns from north', () => {
    expect([0, 90, 180].map(headingOf).map(([x, z]) => [Math.round(x), Math.round(z) + 0])).toEqual([
      [0, -1],
      [1, 0],
      [0, 1],
    ]);
  });
});
