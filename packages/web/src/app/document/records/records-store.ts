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
  type Operation,
  type RecordTables,
  type ShownRecord,
  tablesWith,
  recordInTables,
  type RecordPut,
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
    on(recordsActions.recordsPut, (state, { records }) => ({ ...state, tables: tablesWith(state.tables, records) })),
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

/** The tables after operations on the records; the same tables when none is about them. A record already gone is left alone. */
export function applyToTables(tables: RecordTables, operations: readonly Operation[]): RecordTables {
  const next = new Map<string, RecordPut>();
  for (const operation of operations) {
    const { document, kind, id, field } = operation;
    if (document !== RECORDS_DOCUMENT) continue;
    const name = `${kind} ${id}`;
    const known = next.get(name);
    const record = known ? known.record : recordInTables(tables, kind, id);
    if (field !== null && !record) continue;
    next.set(name, { kind, id, record: applyOperation(record, operation) });
  }
  return next.size === 0 ? tables : tablesWith(tables, next.values());
}
