import type { RunContext } from '../context/run-context';
import { CoreError } from '../errors';
import { soundPieces, type ReadPieces } from '../detail/sound-pieces';
import { unpackedFiles } from '../detail/unpacked-files';
import type { DroppedFile } from '../formats/dropped-file';
import { FilesBeside } from '../formats/files-beside';
import type { MeshDecoders } from '../formats/glb/mesh-decoders';
import { readScene } from '../formats/glb/read-scene';
import type { ImportFault } from '../formats/import-report';
import { chosenFile, formatOfFile } from '../formats/told-files';
import { IDENTITY } from '../mesh/place-part';
import { planScene, type PlanSceneInput, type ScenePlan } from './plan-scene';

/** Files that a scene comes in. */
const SCENES = ['glb', 'gltf'] as const;
/** No mesh of a scene is told by its name to be the collision of another: those were left out before. */
const NO_COLLISION = '\u0000{name}';

export interface ReadSceneInput extends Omit<PlanSceneInput, 'scene'> {
  /** One GLB or glTF with the buffers and pictures that it names, or a zip of them. */
  readonly files: readonly DroppedFile[];
}

/** A scene that was read, ready to be laid into a level. */
export interface ReadScene {
  /** Name of the file, without its ending. */
  readonly name: string;
  /** Its placements are those of pieces that came through. */
  readonly plan: ScenePlan;
  readonly read: ReadPieces;
}

/**
 * Reads a scene from files, and makes pieces of its meshes. What cannot be used is left out and told, and what stands with it.
 * @throws CoreError 'IMPORT_FILES' when there is not one scene among them or they are too large, 'IMPORT_UNIT', 'CANCELLED', and as `readScene`
 */
export async function readSceneFiles(
  { files: dropped, ...how }: ReadSceneInput,
  context: RunContext,
  decoders: MeshDecoders = {},
): Promise<ReadScene> {
  const files = unpackedFiles(dropped);
  const found = files.flatMap((file) => {
    const format = formatOfFile(chosenFile(file.name, file.bytes), [...SCENES]);
    return format === 'glb' || format === 'gltf' ? [{ file, format }] : [];
  });
  if (found.length !== 1)
    throw new CoreError(
      'IMPORT_FILES',
      found.length === 0
        ? `import: there is no scene among ${files.map(({ name }) => name).join(', ') || 'the files'}; export one as GLB or glTF`
        : `import: takes one scene at a time, there are ${found.map(({ file }) => file.name).join(', ')}`,
    );
  const [{ file, format }] = found;
  context.progress(0, `reading ${file.name}`);
  const scene = await readScene(format, file.bytes, new FilesBeside(files).from(file.name), decoders);
  const plan = planScene({ scene, ...how }, context);
  const faults: ImportFault[] = [...plan.faults];
  const meshes = {
    pieces: plan.pieces.map(({ mesh }) => mesh),
    materials: plan.materials,
    textures: plan.textures,
  };
  const read = await soundPieces(meshes, IDENTITY, NO_COLLISION, faults, context);
  const through = new Set(read.pieces.map((piece) => piece.name));
  const placements = plan.placements.filter(({ piece }) => through.has(plan.pieces[piece].mesh.name));
  return { name: nameOfFile(file.name), plan: { ...plan, placements, faults }, read };
}

function nameOfFile(path: string): string {
  return path
    .slice(path.lastIndexOf('/') + 1)
    .replace(/\.[^.]*$/, '')
    .trim();
}
