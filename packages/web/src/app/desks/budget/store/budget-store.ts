import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';
import type { Measure } from '../../../bakes/core-bands';
import type { BudgetChip } from '../budget-rows';
import { flipped } from '../../../ui/tick-range';

export interface BudgetState {
  readonly measure: Measure;
  /** Level whose parts are open, '' for none. */
  readonly opened: string;
  /** Device whose figure of it is open, '' for the first. */
  readonly openedDevice: string;
  /** Levels of these states alone are shown; all when there is none. */
  readonly chips: readonly BudgetChip[];
  readonly filter: string;
  /** Devices compared beside the one of the top bar. */
  readonly others: readonly string[];
  /** Sets whose levels are folded away. */
  readonly folded: readonly string[];
  /** Set whose levels the chart shows where it has a bar a set. */
  readonly chartSet: string;
}

export const budgetActions = createActionGroup({
  source: 'Budget',
  events: {
    'Measure Chosen': props<{ measure: Measure }>(),
    'Level Opened': props<{ id: string; measure?: Measure; device?: string }>(),
    'Chip Toggled': props<{ chip: BudgetChip }>(),
    'Filter Typed': props<{ text: string }>(),
    'Devices Compared': props<{ others: readonly string[] }>(),
    'Set Folded': props<{ id: string }>(),
    'Chart Set Opened': props<{ id: string }>(),
  },
});

const initial: BudgetState = {
  measure: 'triangles',
  opened: '',
  openedDevice: '',
  chips: [],
  filter: '',
  others: [],
  folded: [],
  chartSet: '',
};

export const budgetFeature = createFeature({
  name: 'budget',
  reducer: createReducer(
    initial,
    on(budgetActions.measureChosen, (state, { measure }): BudgetState => ({ ...state, measure })),
    on(
      budgetActions.levelOpened,
      (state, { id, measure = state.measure, device = state.openedDevice }): BudgetState => ({
        ...state,
        opened: id,
        measure,
        openedDevice: device,
      }),
    ),
    on(budgetActions.chipToggled, (state, { chip }): BudgetState => ({
      ...state,
      chips: [...flipped(state.chips, [chip])],
    })),
    on(budgetActions.filterTyped, (state, { text }): BudgetState => ({ ...state, filter: text })),
    on(budgetActions.devicesCompared, (state, { others }): BudgetState => ({ ...state, others })),
    on(budgetActions.setFolded, (state, { id }): BudgetState => ({
      ...state,
      folded: [...flipped(state.folded, [id])],
    })),
    on(budgetActions.chartSetOpened, (state, { id }): BudgetState => ({ ...state, chartSet: id })),
  ),
});
