import type { Level } from '../model/level';
import type { Stratum } from '../model/stratum';
import type { AssemblyUse, StratumContent } from '../model/items';
import type { PlacementColumns } from '../model/placement';
import { layAssemblies, withAssemblies } from './assemblies/lay-assemblies';
import { withoutAside } from './groups';
import { patchedContent } from './patched-content';
import { withWallBlocks } from './walls/wall-blocks';

/** A level with the content of every stratum in its stack; bottom first. */
export interface LevelContent {
  readonly level: Level;
  readonly strata: readonly {
    readonly stratum: Stratum;
    readonly content: StratumContent;
    /** Placements that sections made; `placementsOf` gives them with those of the content. */
    readonly made?: PlacementColumns;
    /** The assemblies that were laid out in the content; absent: none. */
    readonly uses?: readonly AssemblyUse[];
  }[];
  /** Ids of the assemblies that were at hand when they were laid out. */
  readonly assemblies?: readonly string[];
}

/** The content of a stratum that counts for a level: its patches laid over, and what is set aside left out. */
export function standingContent(content: StratumContent, level: string): StratumContent {
  return withoutAside(patchedContent(content, level));
}

/** The same with its assemblies laid out and its walls as blocks. @throws CoreError 'ASSEMBLY_TOO_LARGE' */
export function laidContent(
  content: StratumContent,
  level: string,
  assemblyOf: (id: string) => StratumContent | undefined,
): StratumContent {
  return withWallBlocks(withAssemblies(standingContent(content, level), assemblyOf));
}

/**
 * A level as everything that computes reads it.
 * @param contents the strata of its stack as they are stored, bottom first
 * @param assemblies those that `assembliesWithin` names, as they are stored
 * @throws CoreError 'ASSEMBLY_TOO_LARGE'
 */
export function levelContent(
  level: Level,
  contents: LevelContent['strata'],
  assemblies: ReadonlyMap<string, StratumContent>,
): LevelContent {
  return {
    level,
    strata: contents.map(({ stratum, content: stored }) => {
      const { content, uses } = layAssemblies(standingContent(stored, level.id), (id) => assemblies.get(id));
      return { stratum, content: withWallBlocks(content), ...(uses.length > 0 ? { uses } : {}) };
    }),
    assemblies: [...assemblies.keys()],
  };
}
