import type { Entry, Field } from '@stravel/core';
import { entryColumns, type TableRow } from '../table-rows';
import { copyRange, fillDown, pasteInto, rangeBetween } from './cell-range';
import { guessMapping, mappingTargets } from './csv-mapping';

const field = (key: string): Field => ({
  id: key,
  key,
  name: key.toUpperCase(),
  type: 'text',
  choices: [],
  order: 'a',
});
const columns = entryColumns([field('a'), field('b')]);
const record = (id: string): Entry => ({
  id,
  register: 'r',
  name: id,
  order: id,
  values: { a: `${id}a`, b: `${id}b` },
});
const rows: TableRow[] = [
  {
    kind: 'set',
    id: 'set',
    set: { id: 'set', name: 'Set', parent: null, order: 'a', binned: null },
    depth: 0,
    rank: 'Part',
    ready: 0,
    count: 3,
    folded: false,
  },
  ...['x', 'y', 'z'].map((id): TableRow => ({ kind: 'record', id, record: record(id), depth: 0, number: '' })),
];
const text = (of: { name: string; values: Entry['values'] }, { field: { key } }: (typeof columns)[number]): string =>
  key === 'name' ? of.name : String(of.values[key]);
const range = (from: string, to: string) => {
  const cell = (place: string) => ({ row: place.split(':')[0], column: place.split(':')[1] });
  const found = rangeBetween(rows, columns, cell(from), cell(to));
  if (!found) throw new Error('no range');
  return found;
};
const told = (texts: readonly { record: { id: string }; column: { field: Field }; text: string }[]) =>
  texts.map((one) => `${one.record.id} ${one.column.field.key} ${one.text}`);

describe('a range of cells', () => {
  it('reaches between any two corners, and is none when a corner is not shown', () => {
    expect(range('z:a', 'x:name')).toEqual({ top: 1, bottom: 3, left: 0, right: 1 });
    expect(rangeBetween(rows, columns, { row: 'gone', column: 'a' }, { row: 'x', column: 'a' })).toBeUndefined();
  });

  it('is copied as a spreadsheet takes it, sets left out', () => {
    expect(copyRange(rows, columns, range('set:name', 'y:a'), text)).toBe('x\txa\ny\tya');
  });

  it('takes a pasted block from its first cell on, and counts what reaches beyond the table', () => {
    const { texts, beyond } = pasteInto(rows, columns, range('y:a', 'y:a'), '1\t2\t3\n4\t5\t6\n7\t8\t9\n');
    expect(told(texts)).toEqual(['y a 1', 'y b 2', 'z a 4', 'z b 5']);
    expect(beyond).toBe(5);
  });

  it('is filled whole by one value, and down from its first line', () => {
    expect(told(pasteInto(rows, columns, range('x:a', 'y:b'), 'v').texts)).toEqual([
      'x a v',
      'x b v',
      'y a v',
      'y b v',
    ]);
    expect(told(fillDown(rows, columns, range('z:a', 'x:a'), text))).toEqual(['y a xa', 'z a xa']);
  });
});

describe('columns of a file', () => {
  it('are guessed by name or key, each target once; what matches nothing is left out', () => {
    const targets = mappingTargets(
      [...columns, { path: 'values.c', field: { ...field('c'), figure: 'strata' } }],
      true,
    );
    expect(targets.map(({ key }) => key)).toEqual(['id', 'set', 'name', 'values.a', 'values.b']);
    expect(guessMapping(['ID', ' entry ', 'a', 'A', 'c', 'odd'], targets)).toEqual([
      'id',
      'name',
      'values.a',
      '',
      '',
      '',
    ]);
  });
});
