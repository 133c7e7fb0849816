import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';

export interface PackState {
  readonly withAllPurposes: boolean;
  /** Keys of levels that are left out. */
  readonly without: readonly string[];
  /** Name of the folder below the collection's packs. */
  readonly folder: string;
}

export const packActions = createActionGroup({
  source: 'Pack',
  events: {
    'Purposes Chosen': props<{ all: boolean }>(),
    'Folder Named': props<{ folder: string }>(),
    'Levels Left Out': props<{ without: readonly string[] }>(),
  },
});

const initial: PackState = { withAllPurposes: false, without: [], folder: 'build' };

export const packFeature = createFeature({
  name: 'pack',
  reducer: createReducer(
    initial,
    on(packActions.purposesChosen, (state, { all }) => ({ ...state, withAllPurposes: all })),
    on(packActions.levelsLeftOut, (state, { without }) => ({ ...state, without })),
    on(packActions.folderNamed, (state, { folder }) => ({ ...state, folder })),
  ),
});
