import { emptyRecordTables, linkLookup, type LoggedEdit, type Operation, type RecordTables } from '@stravel/core';
import { describeEdit } from './describe-edit';

const tables: RecordTables = {
  ...emptyRecordTables(),
  set: { s: { id: 's', name: 'The Works', parent: null, order: 'a', binned: null } },
  stratum: { own: { id: 'own', name: 'Structure', role: 'structure', owner: 'yard' } },
  field: {
    mood: { id: 'mood', key: 'mood', name: 'Mood', type: 'choice', choices: ['dark', 'ember'], order: 'a' },
    picture: { id: 'picture', key: 'picture', name: 'Picture', type: 'picture', choices: [], order: 'b' },
  },
};
const op = (parts: Partial<Operation>): Operation => ({
  document: 'records',
  kind: 'level',
  id: 'yard',
  field: null,
  before: null,
  after: null,
  ...parts,
});
const told = (...operations: Operation[]): string[] =>
  describeEdit(
    { sequence: 1, at: '', id: 'e', person: 'p', label: '', undoes: null, operations } satisfies LoggedEdit,
    'yard',
    new Set(['own']),
    tables,
    linkLookup(tables),
  ).map(({ what, before, after }) => `${what}: ${before}${before ? ' → ' : ''}${after}`);

describe('an edit in words', () => {
  it('names fields, sets and pictures as a person knows them', () => {
    expect(
      told(
        op({ field: 'values.mood', before: null, after: 'dark' }),
        op({ field: 'values.gone', before: 3, after: 4 }),
        op({ field: 'set', before: 's', after: 'x' }),
        op({ field: 'values.picture', before: null, after: 'ab12cd34ef' }),
        op({ field: 'strata', before: [], after: [{ stratum: 'own', switchedOff: false }] }),
        op({ kind: 'levelOrder', before: null, after: {} }),
      ),
    ).toEqual([
      'Mood: — → dark',
      'Field gone, which was deleted: 3 → 4',
      'Set: The Works → —',
      'Picture: — → picture ab12cd34',
      'Stack of strata: — → Structure',
      'Its order of play: there',
    ]);
  });

  it('counts content by kind, leaves other levels out, and counts nothing twice', () => {
    const marker = (id: string, parts: Partial<Operation>): Operation =>
      op({ document: 'own', kind: 'marker', id, ...parts });
    expect(
      told(
        op({ id: 'hall', field: 'name', before: 'a', after: 'b' }),
        op({ document: 'other', kind: 'block', id: 'b', after: {} }),
        marker('m1', { after: {} }),
        marker('m1', { field: 'turn', before: 0, after: 90 }),
        marker('m2', { field: 'turn', before: 0, after: 90 }),
        marker('m2', { field: 'position', before: 0, after: 1 }),
        marker('m3', { before: {} }),
        op({ kind: 'stratum', id: 'own', field: 'owner', before: 'yard', after: null }),
      ),
    ).toEqual(['Owner of a stratum: yard → —', 'Markers of Structure: 1 added, 1 removed, 1 changed']);
  });
});
