import fc from 'fast-check';
import { columnsOf } from '../../core/src/items/placement/columns';
import { canonicalJson, parseJson } from '../../core/src/json/canonical-json';
import { columnsFile, describedColumns } from '../../core/src/layout/placed-columns/columns-file';
import { ColumnsBuilder } from '../../core/src/layout/placed-columns/columns-builder';
import { ColumnsLayout } from '../../core/src/layout/placed-columns/columns-layout';
import type { ColumnForm } from '../../core/src/layout/placed-columns/placed-files';
import { placedJson } from '../../core/src/layout/placed-json';
import type { Placement } from '../../core/src/model/placement';
import { Fields } from './fields';
import { Piece } from './pieces';
import { columnPlacements, listedPlacements, type Placements } from './placements';

const BOUNDS = { min: [-2, 0, -0.5], max: [3, 4, 7] } as const;
const pieceOf = (id: string): Piece => new Piece(id, id, `kits/yard/${id}.glb`, BOUNDS, [], undefined);
const placement = (id: string, over: Partial<Placement> = {}): Placement => ({
  id,
  piece: 'post',
  position: [0, 0, 0],
  turn: [0, 0, 0],
  scale: [1, 1, 1],
  ...over,
});

interface Written {
  readonly bytes: Uint8Array;
  readonly columns: Fields;
}

/** What a pack writes of some placements as columns, read from its text again. */
function written(placements: readonly Placement[], form: ColumnForm): Written {
  const of = columnsOf(placements);
  const builder = new ColumnsBuilder(form);
  placements.forEach((_one, i) => builder.add({ of, i }, { bounds: { min: [...BOUNDS.min], max: [...BOUNDS.max] } }));
  const layout = new ColumnsLayout(builder);
  const columns = parseJson(canonicalJson(describedColumns(builder, layout, 'a.bin')), 'columns');
  return { bytes: columnsFile(builder, layout), columns: Fields.of(columns, 'levels/a.json') };
}

const columnsRead = (placements: readonly Placement[], form: ColumnForm): Placements => {
  const { bytes, columns } = written(placements, form);
  return columnPlacements(columns, bytes, pieceOf);
};
/** The same by way of JSON, the reference. */
const listRead = (placements: readonly Placement[]): Placements =>
  listedPlacements(
    placements.map((one) => Fields.of(JSON.parse(JSON.stringify(placedJson(one))), 'levels/a.json')),
    pieceOf,
  );

/** Where a point of a piece comes to stand: turned by the quaternion as its matrix, no matter how long it is. */
function placed({ translations, rotations, scales }: Placements, i: number, point: readonly number[]): number[] {
  const [x, y, z, w] = rotations.subarray(i * 4, i * 4 + 4);
  const p = point.map((value, k) => value * scales[i * 3 + k]);
  const rows = [
    [1 - 2 * (y * y + z * z), 2 * (x * y - z * w), 2 * (x * z + y * w)],
    [2 * (x * y + z * w), 1 - 2 * (x * x + z * z), 2 * (y * z - x * w)],
    [2 * (x * z - y * w), 2 * (y * z + x * w), 1 - 2 * (x * x + y * y)],
  ];
  return rows.map((row, k) => translations[i * 3 + k] + row[0] * p[0] + row[1] * p[1] + row[2] * p[2]);
}

const CORNERS = Array.from({ length: 8 }, (_one, c) => [0, 1, 2].map((k) => BOUNDS[c & (1 << k) ? 'max' : 'min'][k]));
const somewhere = fc.oneof(
  fc.double({ min: -120, max: 120, noNaN: true }),
  fc.double({ min: -1e5, max: 1e5, noNaN: true }),
  fc.integer({ min: -50, max: 50 }).map((half) => half / 2000),
);
const angle = fc.oneof(
  fc.constant(0),
  fc.integer({ min: -3, max: 4 }).map((k) => k * 90),
  fc.double({ min: -180, max: 180, noNaN: true }),
);
const scale = fc.oneof(fc.constant(1), fc.constant(-1), fc.double({ min: 0.01, max: 100, noNaN: true }));
const three = <T>(one: fc.Arbitrary<T>): fc.Arbitrary<[T, T, T]> => fc.tuple(one, one, one);
const anyPlacements = fc
  .array(
    fc.record({
      piece: fc.constantFrom('post', 'gate', 'lamp-2'),
      position: three(somewhere),
      turn: three(angle),
      scale: three(scale),
      group: fc.constantFrom(undefined, 'north', 'south'),
      values: fc.constantFrom(undefined, { note: 'überall', at: [[1, 2, 3]] }),
    }),
    { minLength: 1, maxLength: 40 },
  )
  .map((all) =>
    all.map(({ group, values, ...one }, i) =>
      placement(`p${i}`, { ...one, ...(group ? { group } : {}), ...(values ? { values } : {}) }),
    ),
  );

describe('placements as columns', () => {
  it('are the same as in JSON, to the last bit, where they are exact', () => {
    fc.assert(
      fc.property(anyPlacements, (placements) => {
        expect(columnsRead(placements, 'exact')).toEqual(listRead(placements));
      }),
      { numRuns: 150 },
    );
  });

  it('bring every corner of a piece within 1 mm, or 1 cm, of its place; all else is the same', () => {
    fc.assert(
      fc.property(anyPlacements, fc.constantFrom<ColumnForm>('millimetre', 'centimetre'), (placements, form) => {
        const { bytes, columns } = written(placements, form);
        const rounded = columnPlacements(columns, bytes, pieceOf);
        const exact = listRead(placements);
        const { ids, piece, groups, values, pieces } = rounded;
        expect({ ids, piece, groups, values, pieces }).toEqual({
          ids: exact.ids,
          piece: exact.piece,
          groups: exact.groups,
          values: exact.values,
          pieces: exact.pieces,
        });
        const within = columns.number('withinMetres');
        expect(within).toBe(form === 'millimetre' ? 0.001 : 0.01);
        for (let i = 0; i < placements.length; i++)
          for (const corner of CORNERS) {
            const [a, b] = [placed(rounded, i, corner), placed(exact, i, corner)];
            expect(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])).toBeLessThanOrEqual(within);
          }
      }),
      { numRuns: 150 },
    );
  });

  it('stand where the table says, by hand', () => {
    const { bytes, columns } = written(
      [
        placement('a', { position: [1.25, 0, -2] }),
        placement('bc', { position: [1.5004, 0, 3], piece: 'gate', group: 'north' }),
        placement('d', { position: [1.25, 0, -2], turn: [180, 0, 0], group: 'north' }),
      ],
      'millimetre',
    );
    expect(columns.json).toEqual({
      file: 'a.bin',
      placements: 3,
      withinMetres: 0.001,
      pieces: ['post', 'gate'],
      groups: ['', 'north'],
      table: [
        { name: 'translation.x', type: 'uint8', offset: 0, count: 3, perMetre: 1000, from: 1250 },
        { name: 'translation.y', value: 0 },
        { name: 'translation.z', type: 'uint16', offset: 8, count: 3, perMetre: 1000, from: -2000 },
        { name: 'rotation.x', value: 0 },
        { name: 'rotation.y', type: 'float32', offset: 16, count: 3 },
        { name: 'rotation.z', value: 0 },
        { name: 'rotation.w', type: 'float32', offset: 32, count: 3 },
        { name: 'scale.x', value: 1 },
        { name: 'scale.y', value: 1 },
        { name: 'scale.z', value: 1 },
        { name: 'piece', type: 'uint8', offset: 48, count: 3 },
        { name: 'group', type: 'uint8', offset: 56, count: 3 },
        { name: 'idLength', type: 'uint8', offset: 64, count: 3 },
        { name: 'ids', type: 'uint8', offset: 72, count: 4 },
      ],
    });
    expect([...bytes]).toEqual([
      ...[0, 250, 0, 0, 0, 0, 0, 0],
      ...[0, 0, 0x88, 0x13, 0, 0, 0, 0],
      ...[0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0x80, 0x3f, 0, 0, 0, 0],
      ...[0, 0, 0x80, 0x3f, 0, 0, 0x80, 0x3f, 0, 0, 0, 0, 0, 0, 0, 0],
      ...[0, 1, 0, 0, 0, 0, 0, 0],
      ...[0, 1, 1, 0, 0, 0, 0, 0],
      ...[1, 2, 1, 0, 0, 0, 0, 0],
      ...[97, 98, 99, 100],
    ]);
  });

  it('keep rotations that come again once, and what is the same in all nowhere in the file', () => {
    const many = Array.from({ length: 200 }, (_one, i) => placement(`p${i}`, { turn: [(i % 4) * 20, 10, 0] }));
    const { bytes, columns } = written(many, 'exact');
    const rotation = columns.tables('table').find((one) => one.text('name') === 'rotation')?.json;
    expect(rotation).toEqual({
      name: 'rotation',
      type: 'float64',
      offset: 0,
      count: 16,
      index: { type: 'uint8', offset: 128, count: 200 },
    });
    expect(bytes.length).toBe(128 + 200 + 200 + many.reduce((sum, { id }) => sum + id.length, 0));
    expect(columnsRead(many, 'exact')).toEqual(listRead(many));
  });

  const typeOf = (name: string, { columns }: Written): unknown =>
    columns.tables('table').find((one) => one.text('name') === name)?.json['type'];

  it('take a wider column where they lie far apart, and exact ones where even those do not reach', () => {
    const type = (far: number, form: ColumnForm): unknown =>
      typeOf('translation.x', written([placement('a'), placement('b', { position: [far, 0, 0] })], form));
    expect(type(0.255, 'millimetre')).toBe('uint8');
    expect(type(0.256, 'millimetre')).toBe('uint16');
    expect(type(65.535, 'millimetre')).toBe('uint16');
    expect(type(65.536, 'millimetre')).toBe('uint32');
    expect(type(655.35, 'centimetre')).toBe('uint16');
    expect(type(4.3e6, 'millimetre')).toBe('float64');
    expect(type(1, 'exact')).toBe('float64');
  });

  it('write large pieces’ rotations in full, as small ones would turn their far ends away', () => {
    const type = (scale: number): unknown =>
      typeOf(
        'rotation.y',
        written(
          [30, 40].map((turn, i) => placement(`${i}`, { turn: [turn, 0, 0], scale: [scale, scale, scale] })),
          'millimetre',
        ),
      );
    expect(type(10)).toBe('float32');
    expect(type(100)).toBe('float64');
  });

  it('name what is wrong with a file that is too short, a column that is missing or short, a piece that no kit has', () => {
    const { bytes, columns } = written([placement('a'), placement('b', { position: [1, 0, 0] })], 'exact');
    const read = (table: unknown, own: Uint8Array = bytes): Placements =>
      columnPlacements(Fields.of({ ...columns.json, table }, 'levels/a.json'), own, pieceOf);
    const table = columns.json['table'] as readonly Record<string, unknown>[];
    expect(() => read(table, bytes.subarray(0, 10))).toThrow('a.bin: its column idLength ends beyond the file');
    expect(() => read(table.slice(1))).toThrow('levels/a.json: table: must have a column translation.x');
    expect(() => read([{ ...table[0], type: 'float16' }, ...table.slice(1)])).toThrow('type: must be one of float64');
    expect(() => read([{ ...table[0], count: 1 }, ...table.slice(1)])).toThrow(
      'translation.x has 1 numbers and must have 2',
    );
    const strange = {
      name: 'rotation',
      type: 'uint8',
      offset: 0,
      count: 4,
      index: { type: 'uint8', offset: 14, count: 2 },
    };
    expect(() => read([...table, strange])).toThrow('its column rotation has an index that leads out of it');
    const unknown = (id: string): Piece => {
      throw new Error(`no ${id}`);
    };
    expect(() => columnPlacements(columns, bytes, unknown)).toThrow('no post');
  });
});
