import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';

export interface SectionsState {
  /** Id of the recipe in hand, null for the first of the level. */
  readonly recipe: string | null;
  /** Id of the chosen wall of its section, or of a pin. */
  readonly wall: string | null;
}

export const sectionsActions = createActionGroup({
  source: 'Sections',
  events: {
    'Level Opened': emptyProps(),
    'Recipe Chosen': props<{ id: string | null }>(),
    'Wall Chosen': props<{ id: string | null }>(),
  },
});

const initial: SectionsState = { recipe: null, wall: null };

export const sectionsFeature = createFeature({
  name: 'sections',
  reducer: createReducer(
    initial,
    on(sectionsActions.levelOpened, (state) => ({ ...state, recipe: null, wall: null })),
    on(sectionsActions.recipeChosen, (state, { id }) => ({ ...state, recipe: id, wall: null })),
    on(sectionsActions.wallChosen, (state, { id }) => ({ ...state, wall: id })),
  ),
});
