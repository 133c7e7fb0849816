import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';

export interface PackState {
  /** Id of the target that is shown; '' for the first. */
  readonly target: string;
  /** Keys of levels that are left out. */
  readonly without: readonly string[];
}

export const packActions = createActionGroup({
  source: 'Pack',
  events: {
    'Target Chosen': props<{ target: string }>(),
    'Levels Left Out': props<{ without: readonly string[] }>(),
  },
});

const initial: PackState = { target: '', without: [] };

export const packFeature = createFeature({
  name: 'pack',
  reducer: createReducer(
    initial,
    on(packActions.targetChosen, (state, { target }) => ({ ...state, target })),
    on(packActions.levelsLeftOut, (state, { without }) => ({ ...state, without })),
  ),
});
