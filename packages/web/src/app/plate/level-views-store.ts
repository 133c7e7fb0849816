import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';
import type { ModelCut, PlateViews } from './plate-drawing';

/** What a desk's plate shows of its level. */
export interface LevelViewState {
  /** Bottom of the heights that the plan shows, metres. */
  readonly bottom: number;
  /** How much of a storey the plan shows, and by how much it steps, metres. */
  readonly storeyMetres: number;
  readonly views: PlateViews;
  /** How the model is cut open beside its top. */
  readonly cut?: ModelCut;
}

/** Heights and views of each desk, by its id. */
export interface LevelViewsState {
  readonly byDesk: Readonly<Record<string, LevelViewState>>;
}

export const levelViewsActions = createActionGroup({
  source: 'Level views',
  events: { 'View Put': props<{ desk: string; view: LevelViewState }>() },
});

const initial: LevelViewsState = { byDesk: {} };

export const levelViewsFeature = createFeature({
  name: 'levelViews',
  reducer: createReducer(
    initial,
    on(levelViewsActions.viewPut, ({ byDesk }, { desk, view }) => ({ byDesk: { ...byDesk, [desk]: view } })),
  ),
});
