import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type {
  FiguresSummary,
  Finding,
  LevelCosts,
  LevelCount,
  RehearsalFigures,
  SightFigures,
  Vector3,
} from '@stravel/core';

export type BakeState = 'fresh' | 'stale' | 'none';

/** What is shown of a sight bake without opening it. */
export interface SightSummary {
  readonly closed: boolean;
  readonly wayOut: readonly Vector3[] | null;
  readonly findings: readonly Finding[];
  readonly figures: SightFigures;
}

/** What is shown of a rehearsal without opening it. */
export interface RehearsalSummary {
  readonly findings: readonly Finding[];
  readonly figures: RehearsalFigures;
  /** Cells that came late. */
  readonly late: number;
}

/** The bakes of one level as the server tells of them. */
export interface LevelBakes {
  readonly level: string;
  /** Of the level as it stands; null when it can't be counted. */
  readonly count: LevelCount | null;
  readonly sight: ListedBake<SightSummary>;
  readonly figures: ListedBake<FiguresSummary>;
  readonly rehearsals: readonly (ListedBake<RehearsalSummary> & { readonly rehearsal: string })[];
}

/** A bake without its result. */
export interface ListedBake<Summary> {
  readonly state: BakeState;
  /** Of what is kept, null when nothing is. */
  readonly key: string | null;
  /** That it would have now, null when it can't be made. */
  readonly current: string | null;
  readonly summary: Summary | null;
}

/** Whether what is open agrees with the level as it stands: by its key, never by what was so when it was opened. */
export function stateOfOpen(listed: ListedBake<unknown> | undefined, openKey: string | undefined): BakeState {
  if (!listed) return 'none';
  return openKey === undefined ? listed.state : openKey === listed.current ? 'fresh' : 'stale';
}

/** Whether what is kept is of the level as it stands and something else is open. */
export function isToBeOpened(listed: ListedBake<unknown> | undefined, openKey: string | undefined): boolean {
  if (!listed || listed.key === null) return false;
  return openKey === undefined || (listed.state === 'fresh' && listed.key !== openKey);
}

/** What a level costs by all that is known of it. */
export function costsOf(bakes: LevelBakes | undefined): LevelCosts {
  const summary = bakes?.figures.summary;
  return {
    count: bakes?.count ?? undefined,
    baked: summary ? { figures: summary, isFresh: bakes.figures.state === 'fresh' } : undefined,
  };
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
    on(bakesActions.loaded, (_state, { levels }): BakesState => ({
      byLevel: Object.fromEntries(levels.map((bakes) => [bakes.level, bakes])),
    })),
  ),
});
