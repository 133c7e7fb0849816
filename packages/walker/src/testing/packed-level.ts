import {
  BakeCache,
  bringBake,
  createRunContext,
  DEFAULT_VIEW,
  kitLoad,
  levelContent,
  manifestText,
  meshLoads,
  packKit,
  packLevel,
  PLAIN_TARGET,
  placedFilesOf,
  type CollectionContent,
  type Device,
  type KitLoad,
  type LevelScene,
  type SightResult,
  type Target,
} from '@stravel/core';
import type { ReadFile } from '@stravel/reader';

/** A level of a collection, packed in memory, with what it is forecast from. */
export interface PackedLevel {
  readonly key: string;
  readonly read: ReadFile;
  readonly files: Map<string, Uint8Array>;
  readonly scene: LevelScene;
  readonly sight: SightResult;
}

/** Packs one level that has no recipes. */
export async function packedLevel(
  { records, strata, assets }: CollectionContent,
  id: string,
  devices: Readonly<Record<string, Device>>,
  target: Target = PLAIN_TARGET,
): Promise<PackedLevel> {
  const context = createRunContext();
  const level = records.level[id];
  const view = DEFAULT_VIEW;
  const files = new Map<string, Uint8Array>();
  const kitLoads: Record<string, KitLoad> = {};
  for (const kit of Object.values(records.kit)) {
    const glb = assets.get(kit.mesh) ?? new Uint8Array();
    const pieces = Object.values(records.piece).filter((piece) => piece.kit === kit.id);
    const { meshFiles, compression } = target;
    const loads = await meshLoads({ glb, meshFiles, compression }, context);
    kitLoads[kit.id] = kitLoad(kit, pieces, view, meshFiles, loads);
    for (const file of await packKit({ kit, pieces, glb, view, meshFiles, compression }, context))
      files.set(file.path, file.bytes);
  }
  const placed = placedFilesOf(target);
  const stack = level.strata.map(({ stratum }) => ({
    stratum: records.stratum[stratum],
    content: strata.get(stratum) ?? missing(stratum),
  }));
  const input = {
    content: levelContent(level, stack, strata),
    pieces: records.piece,
    kits: records.kit,
    kitLoads,
    ...(placed ? { placed } : {}),
    grid: records.cellGrid[id] ?? null,
  };
  const scene: LevelScene = { ...input, view, rehearsals: [], devices, floors: {} };
  const { result } = bringBake(scene, { kind: 'sight', subject: id }, new BakeCache(1e8), context);
  for (const file of await packLevel({ ...input, number: 1, sets: [], sight: result, sections: [] }, context))
    files.set(file.path, file.bytes);
  const manifest = manifestText({
    collection: { id: 'c', name: 'Test' },
    target,
    edit: 7,
    levels: [`levels/${level.key}.json`],
    kits: Object.values(records.kit).map(({ key }) => `kits/${key}.json`),
    stale: [],
    files: [],
  });
  files.set('manifest.json', new TextEncoder().encode(manifest));
  const read: ReadFile = (path) => {
    const bytes = files.get(path);
    return bytes ? Promise.resolve(bytes) : Promise.reject(new Error(`there is no ${path}`));
  };
  return { key: level.key, read, files, scene, sight: result };
}

function missing(stratum: string): never {
  throw new Error(`there is no stratum ${stratum}`);
}
