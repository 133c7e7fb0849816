import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';

/** What the cells of the plan are told by. */
export const CELL_MEASURES = ['bytes', 'triangles', 'objects'] as const;
export type CellMeasure = (typeof CELL_MEASURES)[number];

export interface CellsState {
  readonly tool: 'look' | 'path' | 'volume';
  readonly measure: CellMeasure;
  /** What one cell may have; undefined where that is not said. */
  readonly limits: Readonly<Record<CellMeasure, number | undefined>>;
  /** Key of the cell in hand. */
  readonly cell: string | null;
  /** Id of the walk in hand, null for the first of the level. */
  readonly walk: string | null;
  /** Where one stood at the moment chosen, plan metres. */
  readonly spot: readonly [number, number] | null;
}

export const cellsActions = createActionGroup({
  source: 'Cells',
  events: {
    'Level Opened': emptyProps(),
    'Tool Chosen': props<{ tool: CellsState['tool'] }>(),
    'Measure Chosen': props<{ measure: CellMeasure }>(),
    'Limit Set': props<{ measure: CellMeasure; limit: number | undefined }>(),
    'Cell Chosen': props<{ cell: string | null }>(),
    'Walk Chosen': props<{ id: string | null }>(),
    'Spot Chosen': props<{ spot: CellsState['spot'] }>(),
  },
});

const initial: CellsState = {
  tool: 'look',
  measure: 'bytes',
  limits: { bytes: undefined, triangles: undefined, objects: undefined },
  cell: null,
  walk: null,
  spot: null,
};

export const cellsFeature = createFeature({
  name: 'cells',
  reducer: createReducer(
    initial,
    on(cellsActions.levelOpened, (state) => ({
      ...state,
      cell: null,
      walk: null,
      spot: null,
      tool: 'look' as const,
    })),
    on(cellsActions.toolChosen, (state, { tool }) => ({ ...state, tool })),
    on(cellsActions.measureChosen, (state, { measure }) => ({ ...state, measure })),
    on(cellsActions.limitSet, (state, { measure, limit }) => ({
      ...state,
      limits: { ...state.limits, [measure]: limit },
    })),
    on(cellsActions.cellChosen, (state, { cell }) => ({ ...state, cell })),
    on(cellsActions.walkChosen, (state, { id }) => ({ ...state, walk: id, spot: null })),
    on(cellsActions.spotChosen, (state, { spot }) => ({ ...state, spot })),
  ),
});
