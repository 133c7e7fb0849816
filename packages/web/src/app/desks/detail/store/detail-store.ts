import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';

export interface DetailState {
  /** Id of the kit in hand, null for the first. */
  readonly kit: string | null;
  /** Id of the piece in hand, null for the first of the kit. */
  readonly piece: string | null;
  /** Step that is shown from near. */
  readonly step: number;
  readonly showsEdges: boolean;
  readonly showsCollision: boolean;
}

export const detailActions = createActionGroup({
  source: 'Detail',
  events: {
    'Kit Chosen': props<{ id: string | null }>(),
    'Piece Chosen': props<{ id: string | null }>(),
    'Step Chosen': props<{ step: number }>(),
    'Edges Shown': props<{ shown: boolean }>(),
    'Collision Shown': props<{ shown: boolean }>(),
  },
});

const initial: DetailState = { kit: null, piece: null, step: 0, showsEdges: true, showsCollision: true };

export const detailFeature = createFeature({
  name: 'detail',
  reducer: createReducer(
    initial,
    on(detailActions.kitChosen, (state, { id }) => ({ ...state, kit: id, piece: null, step: 0 })),
    on(detailActions.pieceChosen, (state, { id }) => ({ ...state, piece: id, step: 0 })),
    on(detailActions.stepChosen, (state, { step }) => ({ ...state, step })),
    on(detailActions.edgesShown, (state, { shown }) => ({ ...state, showsEdges: shown })),
    on(detailActions.collisionShown, (state, { shown }) => ({ ...state, showsCollision: shown })),
  ),
});
