import fc from 'fast-check';
import { archiveCollection } from '../archive/archive-collection';
import { restoreCollection } from '../archive/restore-collection';
import { canonicalJson } from '../json/canonical-json';
import type { CollectionContent } from '../model/collection-content';
import type { Json } from '../model/json';
import { RECORDS_DOCUMENT, type EditableKind } from '../model/records';
import { smallCollection } from '../testing/small-collection';
import type { JsonRecord } from './apply-operation';
import { putRecord, tryOperations, type DocumentState } from './document-state';
import { invertOperations, type Operation } from './operation';
import { restoreOperations, type RestorePlan } from './restore-operations';

/** The plan, whatever pauses it was made in. */
function planOf(...of: Parameters<typeof restoreOperations>): RestorePlan {
  const steps = restoreOperations(...of);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

const emptyState = (): DocumentState => new Map();

/** The documents of a collection as a server holds them. */
function documentsOf({ records, strata }: CollectionContent): Map<string, DocumentState> {
  const documents = new Map<string, DocumentState>([[RECORDS_DOCUMENT, new Map()]]);
  const put = (document: string, kind: string, record: { readonly id: string }): void => {
    const state = documents.get(document) ?? new Map<EditableKind, Map<string, JsonRecord>>();
    documents.set(document, state);
    putRecord(state, kind as EditableKind, record.id, record as unknown as JsonRecord);
  };
  for (const [kind, table] of Object.entries(records))
    for (const record of Object.values(table) as { id: string }[]) put(RECORDS_DOCUMENT, kind, record);
  for (const [stratum, content] of strata)
    for (const [kind, items] of Object.entries(content) as [string, readonly { id: string }[]][])
      items.forEach((item) => put(stratum, kind, item));
  return documents;
}
/** What stands in documents, in one order. */
const plain = (documents: ReadonlyMap<string, DocumentState>): string[] =>
  [...documents]
    .flatMap(([name, state]) =>
      [...state].flatMap(([kind, table]) =>
        [...table.values()].map((record) => `${name} ${kind} ${canonicalJson(record as Json)}`),
      ),
    )
    .sort();

/** Lays operations as the log does; fails where one does not hold. */
function apply(documents: Map<string, DocumentState>, operations: readonly Operation[]): void {
  const { conflicts, touched } = tryOperations((name) => documents.get(name) ?? emptyState(), operations);
  expect(conflicts).toEqual([]);
  for (const { document, kind, id, record } of touched) {
    const state = documents.get(document) ?? new Map<EditableKind, Map<string, JsonRecord>>();
    documents.set(document, state);
    putRecord(state, kind, id, record);
  }
}

describe('restoring into a collection', () => {
  it('changes nothing where nothing differs, and counts what does', async () => {
    const content = await smallCollection();
    const documents = documentsOf(content);
    const now = (name: string): DocumentState => documents.get(name) ?? emptyState();
    expect(planOf(now, restoreCollection(archiveCollection(content)))).toEqual({ operations: [], changes: [] });
    const then = await smallCollection();
    then.records.level['one'] = {
      ...then.records.level['one'],
      name: 'Uno',
      values: { ...then.records.level['one'].values, note: 'x' },
    };
    then.records.collection['collection'] = { ...then.records.collection['collection'], name: 'Another name' };
    then.strata.set('own', {
      ...(then.strata.get('own') as never as object),
      marker: [],
      placement: [{ id: 'p2', piece: 'pin', position: [0, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] }],
    } as never);
    const { operations, changes } = planOf(now, then);
    expect(changes).toEqual([
      { kind: 'level', added: 0, changed: 1, removed: 0 },
      { kind: 'marker', added: 0, changed: 0, removed: 1 },
      { kind: 'placement', added: 1, changed: 0, removed: 1 },
    ]);
    // What comes first, then what changes, then what goes; the collection keeps its own name.
    expect(
      operations.map(({ kind, id, field, before, after }) => [kind, id, field, before === null, after === null]),
    ).toEqual([
      ['placement', 'p2', null, true, false],
      ['level', 'one', 'name', false, false],
      ['level', 'one', 'values.note', true, false],
      ['placement', 'p1', null, false, true],
      ['marker', 'm1', null, false, true],
    ]);
  });

  it('makes one collection into any other, and its undo brings all of it back', async () => {
    const base = await smallCollection();
    const variant = fc.record({
      name: fc.string({ minLength: 1, maxLength: 20 }),
      gone: fc.subarray(['p1', 'm1', 'd1']),
      moved: fc.tuple(fc.integer(), fc.integer(), fc.integer()),
      isWithoutTwo: fc.boolean(),
      extra: fc.integer({ min: 0, max: 4 }),
    });
    const made = ({
      name,
      gone,
      moved,
      isWithoutTwo,
      extra,
    }: {
      name: string;
      gone: string[];
      moved: [number, number, number];
      isWithoutTwo: boolean;
      extra: number;
    }): CollectionContent => {
      const own = base.strata.get('own') as NonNullable<ReturnType<typeof base.strata.get>>;
      const kept = <T extends { readonly id: string }>(items: readonly T[]): T[] =>
        items.filter(({ id }) => !gone.includes(id));
      const placement = [
        ...kept(own.placement).map((one) => ({ ...one, position: moved })),
        ...Array.from({ length: extra }, (_unused, i) => ({
          id: `x${i}`,
          piece: 'pin',
          position: [i, 0, 0] as const,
          turn: [0, 0, 0] as const,
          scale: [1, 1, 1] as const,
        })),
      ];
      const { two, ...others } = base.records.level;
      return {
        ...base,
        records: {
          ...base.records,
          level: { ...(isWithoutTwo ? others : { ...others, two }), one: { ...base.records.level['one'], name } },
        },
        strata: new Map([
          ...base.strata,
          ['own', { ...own, placement, marker: kept(own.marker), divider: kept(own.divider) }],
        ]),
      };
    };
    fc.assert(
      fc.property(variant, variant, (first, second) => {
        const documents = documentsOf(made(first));
        const before = plain(documents);
        const { operations } = planOf((name) => documents.get(name) ?? emptyState(), made(second));
        apply(documents, operations);
        expect(plain(documents)).toEqual(plain(documentsOf(made(second))));
        apply(documents, invertOperations(operations));
        expect(plain(documents)).toEqual(before);
      }),
      { numRuns: 100 },
    );
  });
});
