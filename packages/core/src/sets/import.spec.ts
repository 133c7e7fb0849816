import fc from 'fast-check';
import { checkEditReferences } from '../document/check-references';
import { applyOperations, tryOperations, type DocumentState } from '../document/document-state';
import { recordFaults } from '../document/validate-record';
import type { Field } from '../model/field';
import type { RecordTables } from '../model/records';
import { smallCollection } from '../testing';
import { planImport, tableRowsText, type ImportRowsInput } from './import-rows';
import { checkKeys } from './keys';
import { planCells, type CellColumn } from './write-cells';

const field = (key: string, parts: Partial<Field> = {}): Field => ({
  id: key,
  key,
  name: key,
  type: 'text',
  choices: [],
  order: 'a',
  ...parts,
});
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
    expect(plan.rows.map(({ outcome }) => outcome)).toEqual([
      'changed',
      'unchanged',
      'new',
      'refused',
      'refused',
      'refused',
    ]);
    expect(plan.rows[4].why).toBe('Row 1 is about it already.');
    expect(plan.counts).toEqual({ new: 1, changed: 1, unchanged: 1, refused: 3 });
    const made = plan.operations.find(({ field: path }) => path === null)?.after as {
      set: string;
      values: unknown;
      order: string;
    };
    expect(made).toMatchObject({ id: 'n2', name: 'Three', set: 'works', values: { shards: 9 } });
    expect(recordFaults('level', made)).toEqual([]);
    expect(made.order > two.order).toBe(true);
  });

  it('refuses an id that nothing has, and what several have', async () => {
    const now = await tables();
    const twins = { ...now, level: { ...now.level, two: { ...now.level['two'], name: now.level['one'].name } } };
    expect(planImport(twins, input({ rows: [[now.level['one'].name, '', '1']] })).rows[0].why).toMatch(
      /^Several have the name/,
    );
    expect(
      planImport(now, input({ rows: [['gone', 'X', '1']], mapping: ['id', CODE, SHARDS], matchBy: 'id' })).rows[0].why,
    ).toBe('Nothing has the id “gone”.');
    expect(planImport(now, input({ rows: [['x']], mapping: [null] })).counts.refused).toBe(1);
  });

  it('makes the sets that a column names, once, and moves levels into them', async () => {
    const now = await tables();
    const { one, two } = now.level;
    const rows = [
      [one.name, 'The Flats / Ebb'],
      ['New one', 'the flats/EBB'],
      ['Newer', 'Works'],
      ['Newest', ''],
      ['Faulty', 'A / / B'],
      ['', 'Never made'],
      [two.name, ''],
    ];
    const plan = planImport(now, input({ rows, mapping: [NAME, 'set'], newIds: rows.map((_row, i) => `n${i}`) }));
    expect(plan.rows.map(({ outcome }) => outcome)).toEqual([
      'changed',
      'new',
      'new',
      'new',
      'refused',
      'refused',
      'unchanged',
    ]);
    expect(plan.rows[4].why).toBe('Set: “A / / B” has a set without a name.');
    const made = plan.operations
      .filter(({ kind }) => kind === 'set')
      .map(({ after }) => after as { id: string; name: string; parent: string | null });
    expect(made.map(({ name, parent }) => [name, parent])).toEqual([
      ['The Flats', null],
      ['Ebb', made[0].id],
    ]);
    const set = (i: number): unknown =>
      (plan.operations.find(({ id }) => id === `n${i}`)?.after as { set: string }).set;
    expect([set(1), set(2), set(3)]).toEqual([made[1].id, 'works', 'works']);
    expect(plan.operations.find(({ id, field }) => id === one.id && field === 'set')?.after).toBe(made[1].id);
  });

  it('makes one set where there is none, and none when nothing is taken', async () => {
    const { kit } = await tables();
    const empty = { level: {}, set: {}, entry: {}, field: {}, kit };
    const plan = planImport(empty, input({ rows: [['First'], ['Second']], mapping: [NAME], set: null }));
    expect(plan.operations.map(({ kind, after }) => [kind, (after as { name: string }).name])).toEqual([
      ['set', 'New set'],
      ['level', 'First'],
      ['level', 'Second'],
    ]);
    expect(planImport(empty, input({ rows: [['']], mapping: [NAME], set: null })).operations).toEqual([]);
  });

  it('asks which set is meant when several have the name', async () => {
    const now = await tables();
    const set = {
      ...now.set,
      a: { id: 'a', name: 'A', parent: null, order: 'a1', binned: null },
      b: { id: 'b', name: 'Ebb', parent: 'a', order: 'a', binned: null },
      c: { id: 'c', name: 'ebb', parent: 'works', order: 'a', binned: null },
    };
    const plan = planImport(
      { ...now, set },
      input({
        rows: [
          ['X', 'Ebb'],
          ['Y', 'a / ebb'],
        ],
        mapping: [NAME, 'set'],
      }),
    );
    expect(plan.rows.map(({ outcome, why }) => [outcome, why])).toEqual([
      ['refused', 'Set: Several sets are named “Ebb”; write the sets above it too, as “Part / Chapter”.'],
      ['new', ''],
    ]);
  });

  it('allows nothing that the check of a record refuses', async () => {
    const now = await tables();
    const cell = fc.oneof(
      fc.string({ maxLength: 210 }),
      fc.constantFrom('x'.repeat(201), 'One', 'one', 'con', 'Works', 'A / B', '1e400', '-0'),
    );
    const KEY: CellColumn = {
      path: 'key',
      field: { ...NAME.field, id: 'key', key: 'key', name: 'Key', required: false },
    };
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { minLength: 4, maxLength: 4 }), { maxLength: 8 }),
        fc.constantFrom<'key' | 'name'>('key', 'name'),
        (rows, matchBy) => {
          const plan = planImport(
            now,
            input({ rows, mapping: [NAME, KEY, 'set', CODE], matchBy, newIds: rows.map((_row, i) => `n${i}`) }),
          );
          const documents = new Map<string, unknown>([
            ['level', new Map(Object.entries(now.level))],
            ['set', new Map(Object.entries(now.set))],
          ]) as unknown as DocumentState;
          const trial = tryOperations(() => documents, plan.operations);
          expect(trial.conflicts).toEqual([]);
          for (const { kind, record } of trial.touched) expect(recordFaults(kind, record)).toEqual([]);
          const after = (kind: string, id: string) =>
            trial.touched.find((one) => one.kind === kind && one.id === id)?.record ??
            documents.get(kind as never)?.get(id) ??
            (now as never)[kind]?.[id];
          expect(() => checkEditReferences(trial.touched, after)).not.toThrow();
          expect(() => checkKeys(trial.touched, (kind) => Object.entries(now[kind]) as never)).not.toThrow();
        },
      ),
      { numRuns: 200 },
    );
  });

  it('reads its own export back as unchanged, and never writes what does not validate', async () => {
    const now = await tables();
    const columns = [NAME, CODE, SHARDS];
    const [header, ...rows] = tableRowsText(now, null, columns);
    expect(header).toEqual(['id', 'Set', 'name', 'code', 'shards']);
    expect(planImport(now, input({ rows, mapping: ['id', 'set', ...columns], matchBy: 'id' })).counts).toMatchObject({
      unchanged: rows.length,
      refused: 0,
    });
    const cell = fc.oneof(fc.string(), fc.constantFrom('one', 'two', 'ONE', '7', '-1', '99'));
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { maxLength: 4 }), { maxLength: 6 }),
        fc.constantFrom<'code' | 'name'>('code', 'name'),
        (random, matchBy) => {
          const plan = planImport(now, input({ rows: random, matchBy }));
          expect(plan.rows).toHaveLength(random.length);
          const state = new Map([['level', new Map(Object.entries(now.level))]]) as unknown as DocumentState;
          applyOperations(state, plan.operations);
          for (const level of state.get('level')?.values() ?? []) expect(recordFaults('level', level)).toEqual([]);
        },
      ),
    );
  });
});
