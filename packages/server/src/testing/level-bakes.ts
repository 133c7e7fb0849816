import type { BakedFigures, BakeKind, SightResult } from '@stravel/core';
import type { Server } from '../app';
import type { LevelBakes, ListedBake } from '../bakes/bake-service';

/** A level's bakes of a kind. */
export function listed({ bakes }: LevelBakes, kind: BakeKind): ListedBake[] {
  return bakes.filter((bake) => bake.kind === kind);
}

/** A level's bakes as a spec asks for them. */
export interface BakesByKind extends Pick<LevelBakes, 'level' | 'count'> {
  readonly sight: ListedBake;
  readonly figures: ListedBake;
  readonly rehearsals: readonly ListedBake[];
  readonly sections: readonly ListedBake[];
}

export function byKind(one: LevelBakes): BakesByKind {
  const [sight] = listed(one, 'sight');
  const [figures] = listed(one, 'figures');
  const { level, count } = one;
  return { level, count, sight, figures, rehearsals: listed(one, 'rehearsal'), sections: listed(one, 'section') };
}

/** Brings sight and figures of a level up to date. */
export async function bakeLevel(
  { bakes }: Pick<Server, 'bakes'>,
  collection: string,
  level: string,
): Promise<{ sight: SightResult; figures: BakedFigures }> {
  const figures = await bakes.result(collection, 'figures', level);
  return { sight: await bakes.result(collection, 'sight', level), figures };
}
