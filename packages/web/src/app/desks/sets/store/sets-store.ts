import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { Purpose } from '@stravel/core';
import type { Measure } from '../../../bakes/core-bands';
import { flipped } from '../../../ui/tick-range';

/** States that levels are filtered by. */
export const LEVEL_CHIPS = ['over', 'not known', 'not ready'] as const;
export type LevelChip = (typeof LEVEL_CHIPS)[number];

/** The cell that keys act on. */
export interface ActiveCell {
  readonly row: string;
  readonly column: string;
}

export interface SetsState {
  readonly filter: string;
  readonly purpose: Purpose | 'all';
  readonly chip: LevelChip | 'all';
  /** Ids of chosen levels. */
  readonly chosen: readonly string[];
  /** Sets whose levels are folded away. */
  readonly folded: readonly string[];
  readonly active: ActiveCell | null;
  readonly editing: boolean;
  readonly measure: Measure;
}

export const setsActions = createActionGroup({
  source: 'Sets',
  events: {
    'Filter Typed': props<{ text: string }>(),
    'Purpose Chosen': props<{ purpose: Purpose | 'all' }>(),
    'Chip Chosen': props<{ chip: LevelChip | 'all' }>(),
    'Measure Chosen': props<{ measure: Measure }>(),
    'Levels Toggled': props<{ ids: readonly string[] }>(),
    'Levels Chosen': props<{ ids: readonly string[] }>(),
    'Set Folded': props<{ id: string }>(),
    'Cell Entered': props<{ cell: ActiveCell }>(),
    'Editing Started': props<{ cell: ActiveCell }>(),
    'Editing Ended': emptyProps(),
  },
});

const initial: SetsState = {
  filter: '',
  purpose: 'all',
  chip: 'all',
  chosen: [],
  folded: [],
  active: null,
  editing: false,
  measure: 'triangles',
};

export const setsFeature = createFeature({
  name: 'sets',
  reducer: createReducer(
    initial,
    on(setsActions.filterTyped, (state, { text }) => ({ ...state, filter: text })),
    on(setsActions.purposeChosen, (state, { purpose }) => ({ ...state, purpose })),
    on(setsActions.chipChosen, (state, { chip }): SetsState => ({ ...state, chip })),
    on(setsActions.measureChosen, (state, { measure }) => ({ ...state, measure })),
    on(setsActions.levelsToggled, (state, { ids }) => ({ ...state, chosen: [...flipped(state.chosen, ids)] })),
    on(setsActions.levelsChosen, (state, { ids }) => ({ ...state, chosen: ids })),
    on(setsActions.setFolded, (state, { id }) => ({ ...state, folded: [...flipped(state.folded, [id])] })),
    on(setsActions.cellEntered, (state, { cell }) => ({ ...state, active: cell, editing: false })),
    on(setsActions.editingStarted, (state, { cell }) => ({ ...state, active: cell, editing: true })),
    on(setsActions.editingEnded, (state) => ({ ...state, editing: false })),
  ),
});
