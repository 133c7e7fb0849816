import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';

/** What the plan is painted by. */
export type PaintBy = 'triangles' | 'drawCalls';

export interface SightState {
  readonly tool: 'stand' | 'divider';
  readonly paintBy: PaintBy;
  /** Where one stands, metres; null when nowhere. */
  readonly stand: readonly [number, number, number] | null;
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
    'Level Opened': emptyProps(),
    'Tool Chosen': props<{ tool: SightState['tool'] }>(),
    'Paint Chosen': props<{ by: PaintBy }>(),
    'Stood At': props<{ at: readonly [number, number, number] | null }>(),
    'Before Kept': props<{ before: NonNullable<SightState['before']> }>(),
  },
});

const initial: SightState = {
  tool: 'stand',
  paintBy: 'triangles',
  stand: null,
  before: null,
};

export const sightFeature = createFeature({
  name: 'sight',
  reducer: createReducer(
    initial,
    on(sightActions.levelOpened, (state) => ({ ...state, stand: null, tool: 'stand' as const })),
    on(sightActions.toolChosen, (state, { tool }) => ({ ...state, tool })),
    on(sightActions.paintChosen, (state, { by }) => ({ ...state, paintBy: by })),
    on(sightActions.stoodAt, (state, { at }) => ({ ...state, stand: at })),
    on(sightActions.beforeKept, (state, { before }) => ({ ...state, before })),
  ),
});
