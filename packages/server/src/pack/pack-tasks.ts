import {
  CoreError,
  meshLoads,
  packKit,
  neededOf,
  sectionsAmong,
  type LevelScene,
  type LoadParts,
  type MeshLoadsInput,
  type PackFile,
  type PackKitInput,
  type RunContext,
} from '@stravel/core';
import { forecastWalk, type Way } from '@stravel/core/pack-walk';
import { floorsOf, neededBakes, type StoredBake } from '../bakes/bake-tasks';

/** What a walk through a level is forecast from. */
export interface ForecastTask {
  readonly scene: LevelScene;
  readonly way: Way;
  /** What is seen in it, and its sections. */
  readonly needed: readonly StoredBake[];
  /** Paths of the GLBs of kits by their ids, for what carries. */
  readonly kits: Readonly<Record<string, string>>;
}

/** What threads do for packs besides levels. */
export const PACK_TASKS = {
  'mesh-loads': (input: MeshLoadsInput, context: RunContext): Promise<ReadonlyMap<string, LoadParts>> =>
    meshLoads(input, context),
  'pack-kit': (input: PackKitInput, context: RunContext): Promise<PackFile[]> => packKit(input, context),
  /** As the bytes of its JSON: nobody else reads it on the way to the page. */
  'forecast-walk': async ({ scene, way, needed, kits }: ForecastTask, context: RunContext): Promise<Uint8Array> => {
    const made = await neededBakes(needed);
    const sight = neededOf(made, 'sight').at(0);
    if (!sight)
      throw new CoreError('BAKE_MISSING', `walk: what is seen in ${scene.content.level.name} cannot be baked`, {
        level: scene.content.level.id,
      });
    const floors = await floorsOf(scene, kits, context);
    const input = { scene: { ...scene, floors }, way, sections: sectionsAmong(made), sight: sight.result };
    return new TextEncoder().encode(JSON.stringify(forecastWalk(input, context)));
  },
} as const;
