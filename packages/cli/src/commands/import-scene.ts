import {
  counted,
  createRunContext,
  levelsInOrder,
  newLevelRecord,
  readSceneFiles,
  sceneOperations,
  sha256Hex,
  type CollectionContent,
  type DroppedFile,
  type Level,
  type ReadScene,
} from '@stravel/core';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { print } from '../print';
import { chosenCollection, withCollections } from '../with-collections';

export interface ImportOptions {
  readonly level?: string;
  readonly set?: string;
  readonly unit: string;
  readonly zUp?: boolean;
  readonly yes?: boolean;
  readonly json?: boolean;
  readonly collection?: string;
}

/** Faults that are printed; there may be one for each of many thousand nodes. */
const MAX_FAULTS = 20;

/** Reads a scene, says what it becomes, and with --yes lays it into a level by one edit that can be undone. */
export async function importCommand(paths: readonly string[], options: ImportOptions): Promise<void> {
  const unitMetres = Number(options.unit);
  const files = await Promise.all(
    paths.map(async (path): Promise<DroppedFile> => ({
      name: basename(path),
      bytes: new Uint8Array(await readFile(path)),
    })),
  );
  await withCollections(async (access) => {
    const collection = await chosenCollection(access, options.collection);
    const tables = await access.records(collection);
    const input = { files, unitMetres, isZUp: options.zUp === true };
    const scene = await readSceneFiles(input, createRunContext(), { draco: loadDraco });
    const { level, isNewLevel } = levelFor(tables, options, scene.name);
    const { glb } = scene.read;
    const operations = sceneOperations({
      scene,
      tables,
      level,
      isNewLevel,
      mesh: glb && sha256Hex(glb),
      kitId: randomUUID(),
      stratumId: randomUUID(),
    });
    const edit =
      options.yes === true
        ? await access.edit(collection, `import ${scene.name} into ${level.name}`, operations, glb ? [glb] : [])
        : null;
    await print(
      options.json === true ? `${JSON.stringify({ ...told(scene), level: level.key, edit })}\n` : sentences(scene),
    );
    if (options.json === true) return;
    await print(
      edit === null
        ? `nothing was changed: --yes imports it into ${level.name}\n`
        : `imported into ${level.name} as edit ${edit}\n`,
    );
  });
}

/** Loaded when a mesh needs it. */
async function loadDraco(): Promise<unknown> {
  // It ships no types of its own.
  const { default: draco } = (await import('draco3dgltf')) as {
    readonly default: { readonly createDecoderModule: () => Promise<unknown> };
  };
  return draco.createDecoderModule();
}

/** The level that a scene goes into: one that is there, or a new one of a set. @throws Error naming what there is */
function levelFor(
  tables: CollectionContent['records'],
  { level: key, set: named }: ImportOptions,
  name: string,
): { readonly level: Level; readonly isNewLevel: boolean } {
  if ((key === undefined) === (named === undefined))
    throw new Error('say where it goes: --level with the key of a level, or --set with the name of a set');
  if (key !== undefined) {
    const levels = levelsInOrder(tables);
    const level = levels.find((one) => one.key === key);
    if (level) return { level, isNewLevel: false };
    throw new Error(
      `there is no level with the key ${key}; there are: ${levels.map((one) => one.key).join(', ') || 'none'}`,
    );
  }
  const sets = Object.values(tables.set).filter(({ binned }) => binned === null);
  const found = sets.filter((set) => set.id === named || set.name.toLowerCase() === named?.toLowerCase());
  if (found.length !== 1)
    throw new Error(
      `there ${found.length === 0 ? 'is no set' : 'is more than one set'} ${named}; there are: ${sets.map((set) => `${set.name} (${set.id})`).join(', ') || 'none'}`,
    );
  return { level: newLevelRecord(tables, found[0].id, name || 'Scene', randomUUID()), isNewLevel: true };
}

function told({ name, plan, read }: ReadScene): object {
  const byName = new Map(plan.pieces.map((planned) => [planned.mesh.name, planned]));
  return {
    name,
    meshes: plan.meshes,
    pieces: read.pieces.map((piece) => {
      const planned = byName.get(piece.name);
      const { triangles, bytes } = piece.step;
      return { name: piece.name, meshes: planned?.meshes ?? 1, offMetres: planned?.offMetres ?? 0, triangles, bytes };
    }),
    placements: plan.placements.length,
    groups: plan.groups.length,
    markers: plan.markers.map(({ kind, path }) => ({ kind, path })),
    faults: read.report.faults,
  };
}

function sentences({ name, plan, read }: ReadScene): string {
  const { faults } = read.report;
  const lines = [
    `${name}: ${counted(plan.meshes, 'mesh', 'meshes')} → ${counted(read.pieces.length, 'piece')}, ${counted(plan.placements.length, 'placement')}, ${counted(plan.groups.length, 'group')}, ${counted(plan.markers.length, 'marker')}`,
    ...plan.pieces.flatMap(({ mesh, meshes, offMetres }) =>
      meshes > 1
        ? [`${mesh.name}: ${counted(meshes, 'equal mesh', 'equal meshes')}, within ${(offMetres * 1000).toFixed(3)} mm`]
        : [],
    ),
    ...faults.slice(0, MAX_FAULTS).map(({ severity, where, message }) => `${severity}: ${where}: ${message}`),
    ...(faults.length > MAX_FAULTS ? [`and ${faults.length - MAX_FAULTS} more; --json tells all`] : []),
  ];
  return `${lines.join('\n')}\n`;
}
