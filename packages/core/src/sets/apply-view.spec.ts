import fc from 'fast-check';
import type { FieldValue } from '../model/field';
import { CONDITION_TESTS, type ConditionTest } from '../model/table-view';
import { applyView, meetsCondition, type ViewCell } from './apply-view';

const cell = (value: FieldValue, type: ViewCell['type'] = typeof value === 'number' ? 'number' : 'text'): ViewCell => ({
  value,
  text: value === null ? '' : String(value),
  type,
});
const read = (record: Record<string, FieldValue>, column: string) =>
  column in record ? cell(record[column]) : undefined;

describe('conditions of a view', () => {
  it.each<[FieldValue, ConditionTest, string, boolean]>([
    ['Ember', 'is', ' ember', true],
    ['Ember', 'is not', 'ember', false],
    ['Ember', 'contains', 'BE', true],
    [12, 'is', '12,0', true],
    [12, 'at least', '12', true],
    [12, 'at most', '11.5', false],
    [12, 'at least', 'x', false],
    [9, 'at least', '10', false],
    [null, 'at most', '5', false],
    [null, 'is', '', true],
    [null, 'is not', 'ember', true],
    [null, 'is empty', '', true],
    [[], 'is filled', '', false],
    [false, 'is filled', '', true],
    ['2027-02-01', 'at least', '2027-01-31', true],
  ])('%j %s “%s” gives %s', (value, test, text, wanted) => {
    expect(meetsCondition(cell(value), test, text)).toBe(wanted);
  });

  it('hold all together or any, and pass over columns that are gone', () => {
    const records = [
      { a: 1, b: 'x' },
      { a: 5, b: 'x' },
      { a: 5, b: 'y' },
    ];
    const conditions = [
      { column: 'a', test: 'at least', text: '5' },
      { column: 'b', test: 'is', text: 'x' },
      { column: 'gone', test: 'is filled', text: '' },
    ] as const;
    expect(applyView(records, { join: 'all', conditions, sorts: [] }, read)).toEqual([records[1]]);
    expect(applyView(records, { join: 'any', conditions, sorts: [] }, read)).toEqual(records);
  });
});

describe('the order of a view', () => {
  it('breaks ties by the next column, keeps the order of what is the same, and puts what is empty last both ways', () => {
    const records: Record<string, FieldValue>[] = [
      { a: null },
      { a: 2, b: 'n' },
      { a: 10, b: 'm' },
      { a: 2, b: 'M' },
      { a: 2, b: 'm' },
    ];
    const sorted = (descending: boolean) =>
      applyView(
        records,
        {
          join: 'all',
          conditions: [],
          sorts: [
            { column: 'a', descending },
            { column: 'b', descending: false },
          ],
        },
        read,
      ).map((one) => records.indexOf(one));
    expect(sorted(false)).toEqual([3, 4, 1, 2, 0]);
    expect(sorted(true)).toEqual([2, 3, 4, 1, 0]);
  });

  it('loses and doubles nothing, and a sorted list stays as it is', () => {
    const value = fc.oneof(fc.constant(null), fc.integer({ min: 0, max: 3 }), fc.constantFrom('a', 'B', 'b'));
    const records = fc.array(fc.record({ a: value, b: value }), { maxLength: 20 });
    const sorts = fc.array(fc.record({ column: fc.constantFrom('a', 'b'), descending: fc.boolean() }), {
      maxLength: 3,
    });
    fc.assert(
      fc.property(
        records,
        sorts,
        fc.constantFrom(...CONDITION_TESTS),
        fc.constantFrom('', '1', 'b'),
        (list, order, test, text) => {
          const sorted = applyView(list, { join: 'all', conditions: [], sorts: order }, read);
          expect([...sorted].sort((x, y) => list.indexOf(x) - list.indexOf(y))).toEqual(list);
          expect(applyView(sorted, { join: 'all', conditions: [], sorts: order }, read)).toEqual(sorted);
          const kept = applyView(list, { join: 'all', conditions: [{ column: 'a', test, text }], sorts: [] }, read);
          expect(kept).toEqual(list.filter((one) => meetsCondition(cell(one.a), test, text)));
        },
      ),
    );
  });
});
