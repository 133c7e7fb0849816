import {
  counted,
  createRunContext,
  levelsInOrder,
  readSceneFiles,
  sceneOperations,
  sha256Hex,
  type DroppedFile,
  type ReadScene,
} from '@stravel/core';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { print } from '../print';
import { chosenCollection, withCollections } from '../with-collections';

export interface ImportOptions {
  readonly level: string;
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
    const level = levelsInOrder(tables).find(({ key }) => key === options.level);
    if (!level) {
      const keys = levelsInOrder(tables).map(({ key }) => key);
      throw new Error(`there is no level with the key ${options.level}; there are: ${keys.join(', ') || 'none'}`);
    }
    const scene = await readSceneFiles({ files, unitMetres, isZUp: options.zUp === true }, createRunContext());
    const { glb } = scene.read;
    const operations = sceneOperations({
      scene,
      tables,
      level,
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

function told({ name, plan, read }: ReadScene): object {
  return {
    name,
    meshes: plan.meshes,
    pieces: read.pieces.map((piece) => {
      const planned = plan.pieces.find(({ mesh }) => mesh.name === piece.name);
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
