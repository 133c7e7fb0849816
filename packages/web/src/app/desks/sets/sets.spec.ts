import {
  emptyRecordTables,
  levelsInOrder,
  linkLookup,
  setTree,
  type Field,
  type Level,
  type LevelSet,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { applyToTables } from '../../document/records/records-store';
import { binSet, moveLevels, moveSet, newLevel } from './level-edits';
import { setsActions, setsFeature } from './store/sets-store';
import { cellText, cellValue, entryColumns, levelColumns, tableRows } from './table-rows';
import { matchQuality } from '../../shell/match-quality';

const set = (id: string, parent: string | null, order: string): LevelSet => ({
  id,
  name: id,
  parent,
  order,
  binned: null,
});
const level = (id: string, of: string, order: string, over: Partial<Level> = {}): Level => ({
  id,
  name: id,
  key: id,
  set: of,
  order,
  purpose: 'play',
  code: id,
  values: {},
  strata: [],
  openSky: false,
  bounds: null,
  binned: null,
  ...over,
});
const tables: RecordTables = {
  ...emptyRecordTables(),
  set: { p: set('p', null, 'a0'), c: set('c', 'p', 'a0'), d: set('d', 'p', 'a1') },
  level: {
    one: level('one', 'c', 'a0'),
    two: level('two', 'c', 'a1'),
    three: level('three', 'd', 'a0', {
      strata: [
        { stratum: 'own', switchedOff: false },
        { stratum: 'all', switchedOff: false },
      ],
    }),
  },
  stratum: {
    own: { id: 'own', name: 'Own', role: 'dressing', owner: 'three' },
    all: { id: 'all', name: 'All', role: 'base', owner: null },
  },
};
const after = (operations: readonly Operation[]): RecordTables => applyToTables(tables, operations);
const names = (state: RecordTables): string[] => levelsInOrder(state).map(({ name }) => name);

describe('edits of levels and sets', () => {
  it('move levels within and between sets, touching only what moves', () => {
    const operations = moveLevels(tables, [tables.level['one']], 'c', null);
    expect(operations.map(({ id, field }) => [id, field])).toEqual([['one', 'order']]);
    expect(names(after(operations))).toEqual(['two', 'one', 'three']);
    expect(names(after(moveLevels(tables, [tables.level['one'], tables.level['two']], 'd', 'three')))).toEqual([
      'one',
      'two',
      'three',
    ]);
    expect(after(moveLevels(tables, [tables.level['one']], 'd', 'three')).level['one'].set).toBe('d');
  });

  it('add at the end and move sets among their siblings', () => {
    expect(names(after(newLevel(tables, 'c', 'fresh').operations))).toEqual(['one', 'two', 'fresh', 'three']);
    expect(names(after(moveSet(tables, tables.set['d'], -1)))).toEqual(['three', 'one', 'two']);
    expect(moveSet(tables, tables.set['d'], 1)).toEqual([]);
    expect(moveSet(tables, tables.set['c'], -1)).toEqual([]);
  });

  it('put a set into the bin with everything in it', () => {
    expect(names(after(binSet(tables, tables.set['p'], '2026-01-01T00:00:00Z')))).toEqual([]);
  });
});

describe('the table', () => {
  const fields: Field[] = [{ id: 'f', key: 'mood', name: 'Mood', type: 'choice', choices: ['dark'], order: 'a0' }];

  it('lists sets with their levels, folds, and leaves out sets without a hit', () => {
    const tree = setTree(tables);
    const numbers = new Map([['one', 1]]);
    expect(tableRows(tree, ['Part'], numbers, new Set(), undefined).map(({ id }) => id)).toEqual([
      'p',
      'c',
      'one',
      'two',
      'd',
      'three',
    ]);
    expect(tableRows(tree, ['Part'], numbers, new Set(['c']), undefined).map(({ id }) => id)).toEqual([
      'p',
      'c',
      'd',
      'three',
    ]);
    expect(tableRows(tree, ['Part'], numbers, new Set(['c']), ({ id }) => id === 'two').map(({ id }) => id)).toEqual([
      'p',
      'c',
      'two',
    ]);
    const heads = tableRows(tree, ['Part'], numbers, new Set(), undefined, (id) => (id === 'one' ? ['no exit'] : []));
    expect(heads.flatMap((row) => (row.kind === 'set' ? [`${row.id} ${row.ready} of ${row.count}`] : []))).toEqual([
      'p 2 of 3',
      'c 1 of 2',
      'd 1 of 1',
    ]);
  });

  it('reads values by column', () => {
    const counted: Field = {
      id: 's',
      key: 's',
      name: 'Strata',
      type: 'whole number',
      choices: [],
      order: 'a1',
      figure: 'strata',
    };
    const columns = levelColumns([...fields, counted], ['play']);
    expect(columns.map(({ id }) => id)).toEqual(['name', 'purpose', 'code', 'ready', 'key', 'f', 's']);
    const worst: Field = { ...counted, id: 'w', figure: 'triangles of the worst pocket' };
    const marked = levelColumns([counted, worst], ['play'], undefined, (id, { figure }) =>
      figure === 'strata' ? 'known' : id === 'old' ? 'stale' : 'bound',
    ).slice(-2);
    expect(marked.map(({ why }) => ['old', 'new'].map((id) => why?.(level(id, 'c', 'a0'))))).toEqual([
      ['', ''],
      [expect.stringContaining('bake it again'), expect.stringContaining('cut into cells')],
    ]);
    const figureOf = () => 12345;
    expect(cellValue(level('x', 'c', 'a0', { values: { mood: 'dark' } }), columns[5], figureOf)).toBe('dark');
    expect(cellValue(level('x', 'c', 'a0'), columns[5], figureOf)).toBeNull();
    expect(cellValue(level('x', 'c', 'a0'), columns[6], figureOf)).toBe(12345);
    const links = linkLookup({ level: {}, set: {}, entry: {} });
    expect([null, '', 12345].map((value) => cellText(value, columns[6], links))).toEqual(['—', '—', '12\u2009345']);
    const [, list] = entryColumns([{ ...fields[0], list: true }]);
    expect(cellText(['a', 'b;c'], list, links)).toBe('a; "b;c"');
    expect(cellText([], list, links)).toBe('—');
  });
});

describe('sets state', () => {
  it('folds, chooses and edits', () => {
    const run = (...actions: Parameters<typeof setsFeature.reducer>[1][]) =>
      actions.reduce(setsFeature.reducer, undefined as never) as ReturnType<typeof setsFeature.reducer>;
    const cell = { row: 'one', column: 'name' };
    expect(
      run(
        setsActions.levelsToggled({ ids: ['a'] }),
        setsActions.levelsToggled({ ids: ['b'] }),
        setsActions.levelsToggled({ ids: ['a'] }),
      ).chosen,
    ).toEqual(['b']);
    expect(run(setsActions.editingStarted({ cell }), setsActions.editingEnded()).editing).toBe(false);
    expect(run(setsActions.editingStarted({ cell })).active).toEqual(cell);
  });
});

describe('matchQuality', () => {
  it('puts the start before a word before the inside before scattered letters', () => {
    const of = (name: string) => matchQuality(name, 'ash');
    expect([of('ash gallery'), of('old ash'), of('crash'), of('a salt house'), of('kiln')]).toEqual([4, 3, 2, 1, 0]);
  });
});
