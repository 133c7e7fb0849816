import type { Device, Field, Level, LevelFiguresTable, Piece } from '@stravel/core';
import { countMatrix } from './count-matrix';
import { overviewCsvRows } from './overview-csv';
import { chartSeries, seriesOf, seriesText } from './series';

const level = (id: string, values: Level['values'] = {}): Level => ({ id, name: id, values }) as Level;
const figures = (markers: Record<string, number>, pieces: Record<string, number> = {}): LevelFiguresTable[string] => ({
  worst: [],
  worstDrawCalls: null,
  load: { memoryBytes: 0, diskBytes: 0, isCut: false },
  tally: { markers, pieces, blocks: {} },
  seen: 'known',
  counted: 'known',
});
const piece = (id: string, kit: string): Piece => ({ id, kit, name: id }) as Piece;

describe('what stands where', () => {
  const levels = ['a', 'b', 'c', 'd', 'e'].map((id) => level(id));
  const table: LevelFiguresTable = {
    a: figures({ spawn: 1, exit: 1 }, { crate: 3, lamp: 2 }),
    b: figures({ spawn: 1, exit: 1 }, { crate: 4 }),
    c: figures({ spawn: 1, exit: 1 }, { crate: 40 }),
    d: figures({ spawn: 1 }, { crate: 2, gone: 1 }),
  };
  const matrix = (by: 'pieces' | 'kits', topOf: (of: Level) => string = () => 'works') =>
    countMatrix(
      levels,
      table,
      { crate: piece('crate', 'yard'), lamp: piece('lamp', 'yard') },
      (kit) => `${kit} kit`,
      by,
      topOf,
    );

  it('go out as rows, where what is not known stays empty and says so', () => {
    const masses = chartSeries(
      {
        id: 'mass',
        name: 'mass',
        format: String,
        valueOf: ({ id }) => (id === 'b' ? NaN : 7.25),
        stateOf: ({ id }) => (id === 'a' ? 'bound' : 'known'),
      },
      levels,
    );
    const rows = overviewCsvRows(matrix('kits'), [masses], levels, (id) => (id === 'e' ? '' : id.toUpperCase()));
    expect(rows[0]).toEqual(['No.', 'Level', 'mass', 'mass, state', 'exit', 'spawn', 'deleted pieces', 'yard kit']);
    expect(rows[1]).toEqual(['A', 'a', '7.25', 'bound', '1', '1', '0', '5']);
    expect(rows[2]).toEqual(['B', 'b', '', 'not known', '1', '1', '0', '4']);
    expect(rows[5]).toEqual(['', 'e', '7.25', 'known', '', '', '', '']);
  });

  it('has markers first, then pieces by kit, and no figures where nothing was counted', () => {
    const { columns, rows } = matrix('pieces');
    expect(columns.map(({ name, of }) => `${name} of ${of}`)).toEqual([
      'exit of markers',
      'spawn of markers',
      'gone of deleted pieces',
      'crate of yard kit',
      'lamp of yard kit',
    ]);
    expect(rows.map(({ cells }) => cells?.map(({ count }) => count) ?? null)).toEqual([
      [1, 1, 0, 3, 2],
      [1, 1, 0, 4, 0],
      [1, 1, 0, 40, 0],
      [0, 1, 1, 2, 0],
      null,
    ]);
  });

  it('sees what is crowded, and what is missing where nearly all of the same set have it', () => {
    const stands = ({ rows }: ReturnType<typeof matrix>) =>
      rows.flatMap(
        ({ level: { id }, cells }) =>
          cells?.flatMap((cell, i) => (cell.stands ? [`${id} ${i} ${cell.stands}`] : [])) ?? [],
      );
    // Crates: 2, 3, 4, 40; from 16 on it is crowded.
    expect(stands(matrix('pieces'))).toEqual(['c 3 crowded', 'd 0 missing']);
    // In a set of its own nobody else has an exit either.
    expect(stands(matrix('pieces', ({ id }) => id))).toEqual(['c 3 crowded']);
  });

  it('adds a kit up and shades by the most of a column', () => {
    const { columns, rows } = matrix('kits');
    expect(columns.map(({ name }) => name)).toEqual(['exit', 'spawn', 'deleted pieces', 'yard kit']);
    expect(rows[0].cells?.map(({ share }) => share)).toEqual([1, 1, 0, 5 / 40]);
  });
});

describe('numbers along the order of play', () => {
  const field = (key: string, parts: Partial<Field> = {}): Field => ({
    id: key,
    key,
    name: key,
    type: 'number',
    choices: [],
    order: 'a',
    ...parts,
  });
  const device: Device = { budget: {} } as Device;

  it('come from number fields and figures, with gaps, and ring what stands out', () => {
    const all = seriesOf(
      [
        field('shards'),
        field('note', { type: 'text' }),
        field('list', { list: true }),
        field('exits', { figure: 'markers' }),
      ],
      { figureOf: (id) => (id === 'l3' ? 7 : null), stateOf: (_id, { figure }) => (figure ? 'bound' : 'known') },
      () => ({ count: undefined, baked: undefined }),
      device,
    );
    expect(all.slice(5).map(({ name }) => name)).toEqual(['shards', 'exits']);
    const levels = [4, 5, 4, null, 6, 5, 60].map((shards, i) => level(`l${i}`, { shards }));
    const shards = chartSeries(all[5], levels);
    expect(shards.values).toEqual([4, 5, 4, NaN, 6, 5, 60]);
    expect(shards.outliers).toEqual([6]);
    expect(chartSeries(all[6], levels).values.filter((value) => !Number.isNaN(value))).toEqual([7]);
    expect(chartSeries(all[0], levels).values.every(Number.isNaN)).toBe(true);
    expect([all[5], all[6]].map((series) => seriesText(series, 1234567, series.stateOf(levels[0])))).toEqual([
      '1.23 M',
      'at most 1.23 M',
    ]);
    expect(seriesText(all[5], 7, 'stale')).toBe('7, stale');
    expect([1234567, 2.34567].map((value) => all[5].format(value))).toEqual(['1.23 M', '2.346']);
  });
});
