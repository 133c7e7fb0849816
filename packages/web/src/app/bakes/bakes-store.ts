import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { FiguresSummary, Finding, SightFigures, Vector3 } from '@stravel/core';

export type BakeState = 'fresh' | 'stale' | 'none';

/** What is shown of a sight bake without opening it. */
export interface SightSummary {
  readonly closed: boolean;
  readonly wayOut: readonly Vector3[] | null;
  readonly findings: readonly Finding[];
  readonly figures: SightFigures;
}

/** The bakes of one level as the server tells of them. */
export interface LevelBakes {
  readonly level: string;
  readonly sight: { readonly state: BakeState; readonly summary: SightSummary | null };
  readonly figures: { readonly state: BakeState; readonly summary: FiguresSummary | null };
}

export interface BakesState {
  readonly byLevel: Readonly<Record<string, LevelBakes>>;
}

export const bakesActions = createActionGroup({
  source: 'Bakes',
  events: { Loaded: props<{ levels: readonly LevelBakes[] }>(), 'Collection Opened': emptyProps() },
});

const initial: BakesState = { byLevel: {} };

export const bakesFeature = createFeature({
  name: 'bakes',
  reducer: createReducer(
    initial,
    on(bakesActions.collectionOpened, () => initial),
    on(bakesActions.loaded, (_state, { levels }): BakesState => ({ byLevel: Object.fromEntries(levels.map((bakes) => [bakes.level, bakes])) })),
  ),
});
