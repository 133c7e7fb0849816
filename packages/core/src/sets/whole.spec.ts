import fc from 'fast-check';
import { DEFAULT_READINESS } from '../model/readiness';
import type { Field } from '../model/field';
import type { Level } from '../model/level';
import { FIELD_FIGURES } from '../model/field';
import { figureStateIn, levelFigureIn, type LevelFiguresTable } from './level-figure';
import { outliers } from './outliers';
import { readinessFaults, type ReadinessFacts } from './readiness';

describe('what stands out', () => {
  it('is far from the median, measured by the median of distances; by hand', () => {
    // Median 5, distances 1 0 1 1 0 55: median 1; 55 · 0.6745 = 37.1 is above 3.5.
    expect(outliers([4, 5, 4, 6, 5, 60])).toEqual([5]);
    expect(outliers([4, NaN, 5, 4, 6, 5, 60])).toEqual([6]);
    // Half are equal: the mean distance takes over, 10 / (1.253 · 10 / 7) = 5.6.
    expect(outliers([3, 3, 3, 3, 3, 3, 13])).toEqual([6]);
  });

  it('is nothing among few, equal or missing values', () => {
    for (const values of [[], [1, 2, 99], [7, 7, 7, 7, 7], [NaN, NaN, NaN, NaN, NaN]])
      expect(outliers(values)).toEqual([]);
  });

  it('does not depend on unit and offset', () => {
    const numbers = fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 5, maxLength: 40 });
    fc.assert(
      fc.property(numbers, fc.integer({ min: -50, max: 50 }), (values, offset) =>
        expect(outliers(values.map((value) => value * 4 + offset))).toEqual(outliers(values)),
      ),
    );
  });
});

describe('whether a level is ready', () => {
  const level = { id: 'a', code: 'A', values: { mood: 'dark', tags: [] }, strata: [{}] } as unknown as Level;
  const field = (key: string): Field => ({
    id: key,
    key,
    name: key.toUpperCase(),
    type: 'text',
    choices: [],
    order: 'a',
  });
  const fields = { mood: field('mood'), note: field('note'), tags: field('tags') };
  const good: ReadinessFacts = {
    isFresh: true,
    markers: { spawn: 1, exit: 2 },
    errors: 0,
    codeIsTaken: false,
    overOn: [],
  };
  const all = { ...DEFAULT_READINESS, fields: ['mood', 'note', 'tags', 'gone'], code: true, devices: ['handheld'] };

  it('is asked only for what the rules ask', () => {
    expect(readinessFaults(level, DEFAULT_READINESS, fields, good)).toEqual([]);
    const bad: ReadinessFacts = {
      isFresh: false,
      markers: { spawn: 1 },
      errors: 2,
      codeIsTaken: true,
      overOn: ['Handheld'],
    };
    const none = { fields: [], spawn: false, exit: false, code: false, bakes: false, findings: false, devices: [] };
    expect(readinessFaults(level, none, fields, { ...bad, overOn: [] })).toEqual([]);
    expect(readinessFaults(level, all, fields, bad)).toEqual([
      'no NOTE',
      'no TAGS',
      'no exit',
      'its code is used twice',
      'bakes stale',
      '2 errors',
      'not within budget on Handheld',
    ]);
  });

  it('tells what was not counted from what is missing', () => {
    expect(
      readinessFaults({ ...level, code: '', strata: [] }, all, {}, { ...good, isFresh: false, markers: null }),
    ).toEqual(['spawn not counted yet', 'exit not counted yet', 'no code', 'nothing to bake']);
  });
});

describe('a figure of a level', () => {
  const figures: LevelFiguresTable = {
    a: {
      worst: [],
      worstDrawCalls: null,
      load: { memoryBytes: 5, diskBytes: 3, isCut: true },
      tally: { markers: { exit: 1, pickup: 4 }, pieces: { crate: 7 }, blocks: {} },
      seen: 'stale',
      counted: 'known',
    },
    // Kept before things were counted one by one.
    old: {
      worst: [],
      worstDrawCalls: null,
      load: { memoryBytes: 5, diskBytes: 3 },
    } as unknown as LevelFiguresTable[string],
  };
  const of = levelFigureIn({ level: { a: { strata: [{}, {}] } as unknown as Level } }, figures);

  it('counts one kind, or all; what is missing counts 0, what nobody counted nothing', () => {
    const read = (level: string) => [
      of(level, { figure: 'markers', counted: 'pickup' }),
      of(level, { figure: 'markers' }),
      of(level, { figure: 'placements', counted: 'lamp' }),
      of(level, { figure: 'placements', counted: null }),
      of(level, { figure: 'memory bytes' }),
      of(level, { figure: 'triangles of the worst pocket' }),
      of(level, { figure: 'strata' }),
    ];
    expect(read('a')).toEqual([4, 5, 0, 7, 5, null, 2]);
    expect(read('old')).toEqual([null, null, null, null, 5, null, null]);
    expect(read('toString')).toEqual([null, null, null, null, null, null, null]);
  });

  it('says how far each can be trusted', () => {
    const state = figureStateIn(figures);
    const read = (level: string) => FIELD_FIGURES.map((figure) => state(level, { figure }));
    expect(read('a')).toEqual(['known', 'stale', 'stale', 'bound', 'known', 'known', 'known']);
    expect(read('toString')).toEqual(['known', ...Array<string>(6).fill('not known')]);
    expect(figureStateIn({ a: { ...figures['a'], load: null } })('a', { figure: 'disk bytes' })).toBe('not known');
  });
});
