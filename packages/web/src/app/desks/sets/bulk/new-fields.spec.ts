import { emptyRecordTables, type Field } from '@stravel/core';
import { fieldsForColumns } from './new-fields';

const mood: Field = { id: 'm', key: 'mood', name: 'Mood', type: 'text', choices: [], order: 'a5' };

describe('fields for columns of a file', () => {
  it('stand after those of the table, with keys of their own and the type of their cells', () => {
    const made = fieldsForColumns(
      [
        { at: 1, title: 'Mood', cells: ['dim', 'dim', 'bright', 'bright'] },
        { at: 2, title: ' mood ', cells: ['1', '2'] },
        { at: 3, title: '', cells: ['x'] },
      ],
      { ...emptyRecordTables(), field: { m: mood } },
      null,
    );
    expect(made.map(({ key, name, type, choices, register }) => [key, name, type, choices, register])).toEqual([
      ['mood2', 'Mood', 'choice', ['dim', 'bright'], null],
      ['mood3', 'mood', 'whole number', [], null],
      ['column4', 'Column 4', 'text', [], null],
    ]);
    expect([mood.order, ...made.map(({ order }) => order)]).toEqual(
      [mood.order, ...made.map(({ order }) => order)].sort(),
    );
    expect(fieldsForColumns([], emptyRecordTables(), null)).toEqual([]);
  });
});
