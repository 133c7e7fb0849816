import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';

export interface SectionsState {
  /** Id of the recipe in hand, null for the first of the level. */
  readonly recipe: string | null;
  /** Id of the chosen wall of its section, or of a pin. */
  readonly wall: string | null;
  readonly bottom: number;
  readonly storeyMetres: number;
  readonly views: 'plan' | 'model' | 'both';
}

export const sectionsActions = createActionGroup({
  source: 'Sections',
  events: {
    'Level Opened': props<{ bottom: number }>(),
    'Recipe Chosen': props<{ id: string | null }>(),
    'Wall Chosen': props<{ id: string | null }>(),
    'Storey Stepped': props<{ by: 1 | -1 }>(),
    'Heights Set': props<{ bottom: number; storeyMetres: number }>(),
    'Views Chosen': props<{ views: SectionsState['views'] }>(),
  },
});

const initial: SectionsState = { recipe: null, wall: null, bottom: -0.5, storeyMetres: 3, views: 'both' };

export const sectionsFeature = createFeature({
  name: 'sections',
  reducer: createReducer(
    initial,
    on(sectionsActions.levelOpened, (state, { bottom }) => ({ ...state, recipe: null, wall: null, bottom })),
    on(sectionsActions.recipeChosen, (state, { id }) => ({ ...state, recipe: id, wall: null })),
    on(sectionsActions.wallChosen, (state, { id }) => ({ ...state, wall: id })),
    on(sectionsActions.storeyStepped, (state, { by }) => ({
      ...state,
      bottom: state.bottom + by * state.storeyMetres,
    })),
    on(sectionsActions.heightsSet, (state, { bottom, storeyMetres }) => ({ ...state, bottom, storeyMetres })),
    on(sectionsActions.viewsChosen, (state, { views }) => ({ ...state, views })),
  ),
});
