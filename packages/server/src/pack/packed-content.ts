import {
  CoreError,
  DEFAULT_VIEW,
  assembliesWithin,
  levelContent,
  levelsInOrder,
  placedPieces,
  playNumbers,
  type CollectionContent,
  type Kit,
  type Level,
  type LevelScene,
  type PackLevelInput,
} from '@stravel/core';

/** A collection without its meshes and pictures. */
export type StoredContent = Omit<CollectionContent, 'assets'>;

/** A level as it is packed, but for what is seen in it and what its kits take. */
export function levelInput(
  { records, strata }: StoredContent,
  level: Level,
): Omit<PackLevelInput, 'sight' | 'sections' | 'kitLoads' | 'placed'> {
  const sets: string[] = [];
  for (let set = records.set[level.set]; set; set = records.set[set.parent ?? '']) sets.unshift(set.name);
  const stack = level.strata.filter(({ stratum }) => records.stratum[stratum]);
  return {
    content: levelContent(
      level,
      stack.map(({ stratum }) => ({
        stratum: records.stratum[stratum],
        content: strata.get(stratum) ?? missingStratum(stratum),
      })),
      strata,
    ),
    pieces: records.piece,
    kits: records.kit,
    grid: records.cellGrid[level.id] ?? null,
    number: playNumbers(levelsInOrder(records)).get(level.id) ?? null,
    sets,
  };
}

/** The kits of which levels, or assemblies that stand in them, place something. */
export function kitsOf(levels: readonly Level[], { records, strata }: StoredContent): Kit[] {
  const stacked = levels.flatMap((level) => level.strata.map(({ stratum }) => stratum));
  const kits = new Set<string>();
  for (const id of new Set([...stacked, ...assembliesWithin(records.stratum, stacked)])) {
    const content = strata.get(id);
    for (const piece of content ? placedPieces([{ content }]) : [])
      if (Object.hasOwn(records.piece, piece)) kits.add(records.piece[piece].kit);
  }
  return Object.values(records.kit).filter(({ id }) => kits.has(id));
}

/** The picture for which LODs are chosen. */
export function viewOf(records: StoredContent['records']): LevelScene['view'] {
  return Object.values(records.collection).at(0)?.view ?? DEFAULT_VIEW;
}

function missingStratum(id: string): never {
  throw new CoreError('STRATUM_MISSING', `pack: the stratum ${id} does not exist`, { stratum: id });
}
