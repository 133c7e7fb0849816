import fc from 'fast-check';
import { checkedEdit } from './edit-request';
import { editOfLines, isLongEdit, linesOfEdit, LONG_EDIT_OPERATIONS } from './edit-lines';
import type { Edit, Operation } from './operation';

const rename = (id: string, after: string): Operation => ({
  document: 'records',
  kind: 'level',
  id,
  field: 'name',
  before: 'x',
  after,
});
const edit = (operations: readonly Operation[]): Edit => ({
  id: 'e1',
  person: 'ines',
  label: 'rename\nall',
  undoes: null,
  operations,
});

describe('an edit as lines', () => {
  it('is the edit again, whatever its texts hold', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'binary' }), { minLength: 1, maxLength: 20 }), (names) => {
        const made = edit(names.map((name, i) => rename(`l${i}`, name)));
        const text = [...linesOfEdit(made)].join('');
        expect(text.split('\n')).toHaveLength(names.length + 2);
        expect(editOfLines(text)).toEqual(made);
        expect(checkedEdit(editOfLines(text.trimEnd()))).toEqual(made);
      }),
    );
  });

  it('names the line that is at fault', () => {
    const lines = [...linesOfEdit(edit([rename('a', 'b'), rename('b', 'c')]))].map((line) => line.trim());
    const faultOf = (text: string): string => {
      try {
        checkedEdit(editOfLines(text));
        return '';
      } catch (error) {
        return (error as Error).message;
      }
    };
    expect(faultOf([lines[0], lines[1], '{"document":'].join('\n'))).toMatch(/^edit: line 3 is not JSON: /);
    expect(faultOf([lines[0], '', lines[1]].join('\n'))).toMatch(/^edit: line 2 is not JSON: /);
    expect(faultOf('')).toMatch(/^edit: line 1 must be a table/);
    expect(faultOf('[]\n{}')).toMatch(/^edit: line 1 must be a table/);
    expect(faultOf('{"id":"e","operations":[]}\n{}')).toMatch(/^edit: line 1 must not have operations/);
    expect(faultOf(lines[0])).toMatch(/at least 1 items/);
    expect(faultOf([lines[0], lines[1], 'null'].join('\n'))).toBe('edit: operations[1] must be a table, is null');
  });

  it('is for more operations than an event tells', () => {
    const many = (count: number): Edit => edit(Array.from({ length: count }, (_unused, i) => rename(`l${i}`, 'n')));
    expect([isLongEdit(many(LONG_EDIT_OPERATIONS)), isLongEdit(many(LONG_EDIT_OPERATIONS + 1))]).toEqual([false, true]);
  });
});
