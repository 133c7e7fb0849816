import {
  EMPTY_CONTENT,
  emptyRecordTables,
  patchId,
  type Level,
  type RecordTables,
  type Stratum,
  type StratumContent,
} from '@stravel/core';
import { applyToTables } from '../../../document/records/records-store';
import { addOwned, addShared, moveInStack, partWays, switchStratum, takeOut } from './strata-edits';

const level = (id: string, ...strata: string[]): Level => ({
  id,
  name: id,
  set: 's',
  order: 'a0',
  purpose: 'play',
  key: 'level',
  code: '',
  values: {},
  strata: strata.map((stratum) => ({ stratum, switchedOff: false })),
  openSky: true,
  bounds: null,
  binned: null,
});
const stratum = (id: string, owner: string | null): Stratum => ({ id, name: id, role: 'base', owner });
const tables: RecordTables = {
  ...emptyRecordTables(),
  level: { one: level('one', 'base', 'own', 'top'), two: level('two', 'base') },
  stratum: {
    base: stratum('base', null),
    own: stratum('own', 'one'),
    top: stratum('top', 'one'),
    other: stratum('other', 'two'),
  },
};
const { one, two } = tables.level;
const stackOf = (after: RecordTables, id = 'one') =>
  after.level[id].strata.map((entry) => entry.stratum + (entry.switchedOff ? ' off' : '')).join();
const content: StratumContent = {
  ...EMPTY_CONTENT,
  marker: [{ id: 'm', kind: 'exit', position: [0, 0, 0], turn: 0, group: 'g' }],
  group: [
    { id: 'g', name: 'G', parent: null, category: '', colour: 'none', switchedOff: false, guard: '', aside: null },
  ],
  patch: [
    {
      id: patchId('one', 'm'),
      level: 'one',
      kind: 'marker',
      target: 'm',
      change: 'changed',
      fields: { turn: 90 },
      was: { turn: 0 },
    },
    { id: patchId('two', 'm'), level: 'two', kind: 'marker', target: 'm', change: 'hidden', fields: {}, was: {} },
  ],
};

describe('the stack of a level', () => {
  it('is reordered, switched and added to', () => {
    expect(stackOf(applyToTables(tables, moveInStack(one, 'base', 2)))).toBe('own,top,base');
    expect(moveInStack(one, 'base', -3)).toEqual([]);
    expect(moveInStack(one, 'gone', 1)).toEqual([]);
    expect(stackOf(applyToTables(tables, switchStratum(one, 'own', true)))).toBe('base,own off,top');
    const { id, operations } = addOwned(one, 'New', 'dressing');
    const after = applyToTables(tables, operations);
    expect([stackOf(after), after.stratum[id].owner]).toEqual([`base,own,top,${id}`, 'one']);
  });

  it('takes strata of others, which are shared from then on; what it has already is left out', () => {
    const after = applyToTables(tables, addShared(one, [tables.stratum['other'], tables.stratum['base']]));
    expect([stackOf(after), after.stratum['other'].owner, stackOf(after, 'two')]).toEqual([
      'base,own,top,other',
      null,
      'base',
    ]);
    expect(addShared(one, [tables.stratum['base']])).toEqual([]);
  });

  it('is left by a stratum with the level’s patches; nobody has it: it goes', () => {
    const operations = takeOut(tables.stratum['base'], [one], [two], content);
    const after = applyToTables(tables, operations);
    expect([stackOf(after), stackOf(after, 'two'), 'base' in after.stratum]).toEqual(['own,top', 'base', true]);
    expect(operations.filter(({ kind }) => kind === 'patch').map(({ id }) => id)).toEqual([patchId('one', 'm')]);
    expect('base' in applyToTables(tables, takeOut(tables.stratum['base'], [one, two], [], content)).stratum).toBe(
      false,
    );
  });

  it('gets a separate copy of a copy as the level sees it, in the same place', () => {
    const { id, operations } = partWays(one, tables.stratum['base'], content);
    const after = applyToTables(tables, operations);
    expect([stackOf(after), after.stratum[id].owner, stackOf(after, 'two')]).toEqual([`${id},own,top`, 'one', 'base']);
    const [copy] = operations
      .filter(({ document, kind }) => document === id && kind === 'marker')
      .map(({ after: record }) => record as { id: string; turn: number; group: string });
    const [group] = operations.filter(({ document, kind }) => document === id && kind === 'group');
    expect([copy.turn, copy.id === 'm', copy.group === group.id]).toEqual([90, false, true]);
    expect(
      operations
        .filter(({ kind, after: record }) => kind === 'patch' && record === null)
        .map((operation) => operation.id),
    ).toEqual([patchId('one', 'm')]);
  });
});
