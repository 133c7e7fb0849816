import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';

/** What the plan is painted by. */
export type PaintBy = 'triangles' | 'drawCalls';

export interface SightState {
  readonly tool: 'stand' | 'divider';
  readonly paintBy: PaintBy;
  /** Where one stands, metres; null when nowhere. */
  readonly stand: readonly [number, number, number] | null;
  readonly bottom: number;
  readonly storeyMetres: number;
  readonly views: 'plan' | 'model' | 'both';
  /** Figures kept to compare a later bake with. */
  readonly before: {
    readonly level: string;
    readonly triangles: number;
    readonly drawCalls: number;
    readonly pockets: number;
    readonly pairs: number;
  } | null;
}

export const sightActions = createActionGroup({
  source: 'Sight',
  events: {
    'Level Opened': props<{ bottom: number }>(),
    'Tool Chosen': props<{ tool: SightState['tool'] }>(),
    'Paint Chosen': props<{ by: PaintBy }>(),
    'Stood At': props<{ at: readonly [number, number, number] | null }>(),
    'Storey Stepped': props<{ by: 1 | -1 }>(),
    'Heights Set': props<{ bottom: number; storeyMetres: number }>(),
    'Views Chosen': props<{ views: SightState['views'] }>(),
    'Before Kept': props<{ before: NonNullable<SightState['before']> }>(),
  },
});

const initial: SightState = {
  tool: 'stand',
  paintBy: 'triangles',
  stand: null,
  bottom: -0.5,
  storeyMetres: 3,
  views: 'both',
  before: null,
};

export const sightFeature = createFeature({
  name: 'sight',
  reducer: createReducer(
    initial,
    on(sightActions.levelOpened, (state, { bottom }) => ({ ...state, stand: null, bottom, tool: 'stand' as const })),
    on(sightActions.toolChosen, (state, { tool }) => ({ ...state, tool })),
    on(sightActions.paintChosen, (state, { by }) => ({ ...state, paintBy: by })),
    on(sightActions.stoodAt, (state, { at }) => ({ ...state, stand: at })),
    on(sightActions.storeyStepped, (state, { by }) => ({ ...state, bottom: state.bottom + by * state.storeyMetres })),
    on(sightActions.heightsSet, (state, { bottom, storeyMetres }) => ({ ...state, bottom, storeyMetres })),
    on(sightActions.viewsChosen, (state, { views }) => ({ ...state, views })),
    on(sightActions.beforeKept, (state, { before }) => ({ ...state, before })),
  ),
});
