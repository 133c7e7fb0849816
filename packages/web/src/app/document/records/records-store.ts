import { createActionGroup, createFeature, createReducer, createSelector, emptyProps, on, props } from '@ngrx/store';
import {
  RECORDS_DOCUMENT,
  applyOperation,
  assembliesWithin,
  compareOrdered,
  emptyRecordTables,
  fieldsOf,
  levelsInOrder,
  playNumbers,
  setTree,
  type Device,
  type Field,
  type JsonRecord,
  type Operation,
  type RecordKind,
  type RecordTables,
  type ShownRecord,
} from '@stravel/core';

/** The small records of the open collection; never a level's content. */
export interface RecordsState {
  readonly loaded: boolean;
  readonly tables: RecordTables;
}

export const recordsActions = createActionGroup({
  source: 'Records',
  events: {
    'Collection Opened': emptyProps(),
    Loaded: props<{ tables: RecordTables }>(),
    'Operations Applied': props<{ operations: readonly Operation[] }>(),
    'Records Put': props<{ records: readonly ShownRecord[] }>(),
  },
});

const initial: RecordsState = { loaded: false, tables: emptyRecordTables() };

export const recordsFeature = createFeature({
  name: 'records',
  reducer: createReducer(
    initial,
    on(recordsActions.collectionOpened, () => initial),
    on(recordsActions.loaded, (_state, { tables }) => ({ loaded: true, tables })),
    on(recordsActions.recordsPut, (state, { records }) => ({ ...state, tables: withRecords(state.tables, records) })),
    on(recordsActions.operationsApplied, (state, { operations }) => ({
      ...state,
      tables: applyToTables(state.tables, operations),
    })),
  ),
  extraSelectors: ({ selectTables }) => ({
    selectSettings: createSelector(selectTables, (tables) => Object.values(tables.collection)[0]),
    selectTree: createSelector(selectTables, (tables) => setTree(tables)),
    selectLevels: createSelector(selectTables, (tables) => levelsInOrder(tables)),
    selectFields: createSelector(selectTables, (tables): Field[] => fieldsOf(tables, null)),
    selectDevices: createSelector(selectTables, (tables): Device[] =>
      Object.values(tables.device).sort(compareOrdered),
    ),
  }),
});

export const selectPlayNumbers = createSelector(recordsFeature.selectLevels, (levels) => playNumbers(levels));

/** Levels that stack each stratum or hold it as an assembly, by stratum id; binned levels count, as their content is still theirs. */
export const selectReach = createSelector(recordsFeature.selectTables, (tables) => {
  const reach = new Map<string, string[]>();
  for (const level of Object.values(tables.level)) {
    const stack = level.strata.map(({ stratum }) => stratum);
    for (const stratum of [...stack, ...assembliesWithin(tables.stratum, stack)])
      reach.set(stratum, [...(reach.get(stratum) ?? []), level.id]);
  }
  return reach;
});

/** The tables with some records put or taken away. */
export function withRecords(tables: RecordTables, records: readonly ShownRecord[]): RecordTables {
  const next: Partial<Record<RecordKind, Record<string, JsonRecord>>> = {};
  for (const { kind: of, id, record } of records) {
    const kind = of as RecordKind;
    const table = (next[kind] ??= { ...(tables[kind] as unknown as Record<string, JsonRecord>) });
    if (record) table[id] = record;
    else delete table[id];
  }
  // Each record keeps its kind: operations were checked when they were made.
  return { ...tables, ...next } as unknown as RecordTables;
}

/** The tables after operations on the records; the same tables when none is about them. A record already gone is left alone. */
export function applyToTables(tables: RecordTables, operations: readonly Operation[]): RecordTables {
  const next: Partial<Record<RecordKind, Record<string, JsonRecord>>> = {};
  for (const operation of operations) {
    if (operation.document !== RECORDS_DOCUMENT) continue;
    const kind = operation.kind as RecordKind;
    const table = (next[kind] ??= { ...(tables[kind] as unknown as Record<string, JsonRecord>) });
    if (operation.field !== null && !table[operation.id]) continue;
    const record = applyOperation(table[operation.id], operation);
    if (record) table[operation.id] = record;
    else delete table[operation.id];
  }
  // Each record keeps its kind: operations were checked when they were made.
  return Object.keys(next).length === 0 ? tables : ({ ...tables, ...next } as unknown as RecordTables);
}
