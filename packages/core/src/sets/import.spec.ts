import fc from 'fast-check';
import { applyOperations, type DocumentState } from '../edits/document-state';
import { recordFaults } from '../schema/validate-record';
import type { Field } from '../model/field';
import type { RecordTables } from '../model/records';
import { smallCollection } from '../testing';
import { planImport, tableRowsText, type ImportRowsInput } from './import-rows';
import { planCells, type CellColumn } from './write-cells';

const field = (key: string, parts: Partial<Field> = {}): Field => ({ id: key, key, name: key, type: 'text', choices: [], order: 'a', ...parts });
const NAME: CellColumn = { path: 'name', field: field('name', { required: true }) };
const CODE: CellColumn = { path: 'code', field: field('code') };
const SHARDS: CellColumn = { path: 'values.shards', field: field('shards', { type: 'number', high: 50 }) };

async function tables(): Promise<RecordTables> {
  const { records } = await smallCollection();
  return { ...records, field: { shards: SHARDS.field } };
}
const input = (parts: Partial<ImportRowsInput>): ImportRowsInput => ({
  register: null,
  rows: [],
  mapping: [NAME, CODE, SHARDS],
  matchBy: 'name',
  set: 'works',
  newIds: ['n0', 'n1', 'n2', 'n3', 'n4', 'n5'],
  ...parts,
});

describe('writing many cells', () => {
  it('marks what is refused and why, and writes the rest as one edit', async () => {
    const now = await tables();
    const { one, two } = now.level;
    const plan = planCells(now, 'level', [
      { record: one, column: NAME, text: ' Uno ' },
      { record: two, column: NAME, text: '' },
      { record: one, column: SHARDS, text: '60' },
      { record: two, column: SHARDS, text: '12' },
      { record: one, column: CODE, text: two.code.toLowerCase() },
      { record: one, column: CODE, text: 'X'.repeat(41) },
      { record: one, column: { path: 'values.n', field: field('n', { type: 'number', figure: 'strata' }) }, text: '1' },
    ]);
    expect(plan.cells.map(({ outcome, why }) => `${outcome} ${why}`.trim())).toEqual([
      'changed',
      'refused name must be filled.',
      'refused 60 is above 50.',
      'changed',
      `refused ${two.name} has it too.`,
      'refused It is longer than 40 characters.',
      'refused It is counted, not written.',
    ]);
    expect(plan.operations.map(({ id, field: path, after }) => [id, path, after])).toEqual([
      ['one', 'name', 'Uno'],
      ['two', 'values.shards', 12],
    ]);
  });

  it('lets two levels change codes with each other, and refuses the second of two that are the same', async () => {
    const now = await tables();
    const { one, two } = now.level;
    const swap = planCells(now, 'level', [
      { record: one, column: CODE, text: two.code },
      { record: two, column: CODE, text: one.code },
    ]);
    expect(swap.counts).toEqual({ changed: 2, unchanged: 0, refused: 0 });
    const same = planCells(now, 'level', [
      { record: one, column: CODE, text: 'NEW' },
      { record: two, column: CODE, text: 'new' },
    ]);
    expect(same.cells.map(({ outcome }) => outcome)).toEqual(['changed', 'refused']);
  });
});

describe('importing rows', () => {
  it('counts what is new, changed, unchanged and refused before anything is written', async () => {
    const now = await tables();
    const { one, two } = now.level;
    const plan = planImport(
      now,
      input({
        rows: [
          [one.name.toUpperCase(), one.code, '7'],
          [two.name, two.code, ''],
          ['Three', '', '9'],
          ['Four', one.code, ''],
          [one.name, one.code, '8'],
          ['', '', '3'],
        ],
      }),
    );
    expect(plan.rows.map(({ outcome }) => outcome)).toEqual(['changed', 'unchanged', 'new', 'refused', 'refused', 'refused']);
    expect(plan.rows[4].why).toBe('Row 1 is about it already.');
    expect(plan.counts).toEqual({ new: 1, changed: 1, unchanged: 1, refused: 3 });
    const made = plan.operations.find(({ field: path }) => path === null)?.after as { set: string; values: unknown; order: string };
    expect(made).toMatchObject({ id: 'n2', name: 'Three', set: 'works', values: { shards: 9 } });
    expect(recordFaults('level', made)).toEqual([]);
    expect(made.order > two.order).toBe(true);
  });

  it('refuses an id that nothing has, and what several have', async () => {
    const now = await tables();
    const twins = { ...now, level: { ...now.level, two: { ...now.level['two'], name: now.level['one'].name } } };
    expect(planImport(twins, input({ rows: [[now.level['one'].name, '', '1']] })).rows[0].why).toMatch(/^Several have the name/);
    expect(planImport(now, input({ rows: [['gone', 'X', '1']], mapping: ['id', CODE, SHARDS], matchBy: 'id' })).rows[0].why).toBe('Nothing has the id “gone”.');
    expect(planImport(now, input({ rows: [['x']], mapping: [null] })).counts.refused).toBe(1);
  });

  it('reads its own export back as unchanged, and never writes what does not validate', async () => {
    const now = await tables();
    const columns = [NAME, CODE, SHARDS];
    const [header, ...rows] = tableRowsText(now, null, columns);
    expect(header).toEqual(['id', 'name', 'code', 'shards']);
    expect(planImport(now, input({ rows, mapping: ['id', ...columns], matchBy: 'id' })).counts).toMatchObject({ unchanged: rows.length, refused: 0 });
    const cell = fc.oneof(fc.string(), fc.constantFrom('one', 'two', 'ONE', '7', '-1', '99'));
    fc.assert(
      fc.property(fc.array(fc.array(cell, { maxLength: 4 }), { maxLength: 6 }), fc.constantFrom<'code' | 'name'>('code', 'name'), (random, matchBy) => {
        const plan = planImport(now, input({ rows: random, matchBy }));
        expect(plan.rows).toHaveLength(random.length);
        const state = new Map([['level', new Map(Object.entries(now.level))]]) as unknown as DocumentState;
        applyOperations(state, plan.operations);
        for (const level of state.get('level')?.values() ?? []) expect(recordFaults('level', level)).toEqual([]);
      }),
    );
  });
});
