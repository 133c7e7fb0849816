import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type {
  BakeKind,
  FiguresSummary,
  Finding,
  LevelCosts,
  LevelCount,
  RehearsalFigures,
  SightFigures,
  Vector3,
} from '@stravel/core';

/** Whether a bake agrees with what stands; 'unknown' while a section that it rests on is not made. */
export type BakeState = 'fresh' | 'stale' | 'unknown' | 'none';

/** The states as they are told. */
export const BAKE_STATE_WORDS: Readonly<Record<BakeState, string>> = {
  fresh: 'fresh',
  stale: 'stale',
  unknown: 'not known',
  none: 'never baked',
};

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

/** The bakes of one level as they come, of whatever kind. */
export interface ListedLevel extends Pick<LevelBakes, 'level' | 'count'> {
  readonly bakes: readonly (ListedBake<never> & { readonly kind: BakeKind; readonly subject: string })[];
}

/** What desks ask of the bakes of a level. */
export function levelBakesOf({ level, count, bakes }: ListedLevel): LevelBakes {
  const of = (kind: BakeKind): ListedLevel['bakes'] => bakes.filter((bake) => bake.kind === kind);
  return {
    level,
    count,
    sight: of('sight').at(0) ?? NO_BAKE,
    figures: of('figures').at(0) ?? NO_BAKE,
    rehearsals: of('rehearsal').map((bake) => ({ ...bake, rehearsal: bake.subject })),
  };
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

const NO_BAKE: ListedBake<never> = { state: 'none', key: null, current: null, summary: null };

/** Whether what is open agrees with the level as it stands: by its key, never by what was so when it was opened. */
export function stateOfOpen(listed: ListedBake<unknown> | undefined, openKey: string | undefined): BakeState {
  if (!listed) return 'none';
  if (openKey === undefined || listed.state === 'unknown') return listed.state;
  return openKey === listed.current ? 'fresh' : 'stale';
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
