import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';
import type { Measure } from '../../../bakes/core-bands';

export interface BudgetState {
  readonly measure: Measure;
  /** Level whose parts are open, '' for none. */
  readonly opened: string;
}

export const budgetActions = createActionGroup({
  source: 'Budget',
  events: {
    'Measure Chosen': props<{ measure: Measure }>(),
    'Level Opened': props<{ id: string; measure?: Measure }>(),
  },
});

const initial: BudgetState = { measure: 'triangles', opened: '' };

export const budgetFeature = createFeature({
  name: 'budget',
  reducer: createReducer(
    initial,
    on(budgetActions.measureChosen, (state, { measure }) => ({ ...state, measure })),
    on(budgetActions.levelOpened, (state, { id, measure }) => ({ opened: id, measure: measure ?? state.measure })),
  ),
});
