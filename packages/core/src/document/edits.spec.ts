import fc from 'fast-check';
import type { EditableKind } from '../model/records';
import { applyOperations, putRecord, tryOperations, type DocumentState } from './document-state';
import { applyOperation, valueAt, type JsonRecord } from './apply-operation';
import { checkEditReferences } from './check-references';
import { equalJson } from './equal-json';
import { invertOperations, type Edit, type Operation } from './operation';
import { emptyUndoStacks, pushEdit } from './undo-stacks';

const set = (id: string, field: string | null, before: Operation['before'], after: Operation['after']): Operation => ({
  document: 'records',
  kind: 'level',
  id,
  field,
  before,
  after,
});
const state = (records: Record<string, JsonRecord>): DocumentState => {
  const made: DocumentState = new Map();
  for (const [id, record] of Object.entries(records)) putRecord(made, 'level', id, record);
  return made;
};

describe('operations', () => {
  it('set a field, a nested value, create and remove', () => {
    const record = { id: 'a', name: 'A', values: { mood: 'ember' } };
    expect(applyOperation(record, set('a', 'name', 'A', 'B'))).toEqual({ ...record, name: 'B' });
    expect(applyOperation(record, set('a', 'values.shards', null, 3))).toEqual({
      ...record,
      values: { mood: 'ember', shards: 3 },
    });
    expect(applyOperation(undefined, set('a', null, null, record))).toBe(record);
    expect(applyOperation(record, set('a', null, record, null))).toBeUndefined();
    expect(valueAt(record, 'values.mood')).toBe('ember');
    expect(valueAt(record, 'values.toString')).toBeNull();
    expect(() => applyOperation(undefined, set('gone', 'name', 'A', 'B'))).toThrow(/level gone does not exist/);
  });

  it('tell every conflict at once and change nothing', () => {
    const documents = state({ a: { id: 'a', name: 'A' }, b: { id: 'b', name: 'B' } });
    const trial = tryOperations(
      () => documents,
      [set('a', 'name', 'X', 'Y'), set('b', 'name', 'B', 'C'), set('c', 'name', 'C', 'D')],
    );
    expect(trial.conflicts.map(({ index, current }) => [index, current])).toEqual([
      [0, 'A'],
      [2, null],
    ]);
    expect(documents.get('level')?.get('b')).toEqual({ id: 'b', name: 'B' });
  });

  it('hold one after the other within one edit', () => {
    const documents = state({});
    const made = { id: 'n', name: 'new' };
    const trial = tryOperations(() => documents, [set('n', null, null, made), set('n', 'name', 'new', 'newer')]);
    expect(trial.conflicts).toEqual([]);
    expect(trial.touched[0].record).toEqual({ id: 'n', name: 'newer' });
  });

  it('are taken back whole by their inverse', () => {
    const value = fc.oneof(fc.string(), fc.integer(), fc.boolean(), fc.constant(null));
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.constantFrom('a', 'b'), fc.constantFrom('name', 'code', 'values.mood', 'values.x'), value),
          { maxLength: 12 },
        ),
        (requests) => {
          const documents = state({
            a: { id: 'a', name: 'A', code: '', values: { mood: null, x: null } },
            b: { id: 'b', name: 'B', code: '', values: { mood: null, x: null } },
          });
          const before = JSON.stringify([...(documents.get('level') ?? [])]);
          const operations: Operation[] = [];
          for (const [id, field, after] of requests) {
            const operation = set(id, field, valueAt(documents.get('level')?.get(id), field), after);
            applyOperations(documents, [operation]);
            operations.push(operation);
          }
          applyOperations(documents, invertOperations(operations));
          expect(JSON.stringify([...(documents.get('level') ?? [])])).toBe(before);
        },
      ),
    );
  });
});

describe('equalJson', () => {
  it('looks past the order of keys and at nothing else', () => {
    expect(equalJson({ a: 1, b: [1, { c: null }] }, { b: [1, { c: null }], a: 1 })).toBe(true);
    expect(equalJson({ a: 1 }, { a: 1, b: null })).toBe(false);
    expect(equalJson([1, 2], [2, 1])).toBe(false);
    expect(equalJson([], {})).toBe(false);
    expect(equalJson(0, null)).toBe(false);
  });
});

describe('undo stacks', () => {
  const edit = (id: string, undoes: string | null = null): Pick<Edit, 'id' | 'undoes'> => ({ id, undoes });
  const run = (...edits: Pick<Edit, 'id' | 'undoes'>[]) =>
    edits.reduce(pushEdit, emptyUndoStacks<Pick<Edit, 'id' | 'undoes'>>());
  const ids = (list: readonly { id: string }[]) => list.map(({ id }) => id);

  it('move an edit to redo and back', () => {
    const undone = run(edit('a'), edit('b'), edit('-b', 'b'));
    expect([ids(undone.undo), ids(undone.redo)]).toEqual([['a'], ['-b']]);
    const redone = pushEdit(undone, edit('b2', '-b'));
    expect([ids(redone.undo), ids(redone.redo)]).toEqual([['a', 'b2'], []]);
  });

  it('forget what could be done again after a new edit', () => {
    const stacks = run(edit('a'), edit('-a', 'a'), edit('c'));
    expect([ids(stacks.undo), ids(stacks.redo)]).toEqual([['c'], []]);
  });
});

describe('references', () => {
  const find = (kind: string, id: string): JsonRecord | undefined =>
    (({ 'set s': { id: 's', parent: null }, 'set t': { id: 't', parent: 's' } }) as Record<string, JsonRecord>)[
      `${kind} ${id}`
    ];
  const touched = (kind: EditableKind, record: JsonRecord, document = 'records') => [
    { document, kind, id: record['id'] as string, record },
  ];

  it('name who points at what is missing', () => {
    expect(() => checkEditReferences(touched('level', { id: 'l', set: 'nowhere', strata: [] }), find)).toThrow(
      'level l points at the set nowhere',
    );
    expect(() => checkEditReferences(touched('placement', { id: 'p', piece: 'x' }, 'st'), find)).toThrow(
      'placement p points at the stratum st',
    );
    expect(() => checkEditReferences(touched('level', { id: 'l', set: 's', strata: [] }), find)).not.toThrow();
  });

  it.each([
    ['assembly', { id: 'u', assembly: 'x' }, 'own', 'assembly u points at the stratum x'],
    [
      'patch',
      { id: 'u..l', level: 'l', kind: 'assembly', fields: { assembly: 'x' } },
      'own',
      'patch u..l points at the stratum x',
    ],
    ['stratum', { id: 'n', kit: 'x' }, 'records', 'stratum n points at the kit x'],
    ['stratum', { id: 'n', assemblies: ['own', 'x'] }, 'records', 'stratum n points at the stratum x'],
    [
      'collection',
      { id: 'c', readiness: { fields: [], devices: ['x'] } },
      'records',
      'collection c points at the device x',
    ],
    ['field', { id: 'f', figure: 'placements', counted: 'x' }, 'records', 'field f points at the piece x'],
  ] as const)('of a %s %j are looked at', (kind, record, document, message) => {
    const known = (of: string, id: string): JsonRecord | undefined =>
      ['stratum own', 'level l'].includes(`${of} ${id}`) ? { id } : undefined;
    expect(() => checkEditReferences(touched(kind, record, document), known)).toThrow(
      `${message}, which does not exist`,
    );
  });

  it('refuse a set inside itself', () => {
    const looped = (kind: string, id: string) =>
      kind === 'set' && id === 's' ? { id: 's', parent: 't' } : find(kind, id);
    expect(() => checkEditReferences(touched('set', { id: 's', parent: 't' }), looped)).toThrow(
      'set s would contain itself',
    );
  });
});
