import type { RunContext } from '../context/run-context';
import { CoreError } from '../errors';
import { DEFAULT_COLLISION_PATTERN, collisionOwners, collisionPatternFault } from '../fields/collision-pattern';
import type { FormatId } from '../formats';
import type { DroppedFile } from '../formats/dropped-file';
import { FilesBeside, type FindBeside } from '../formats/files-beside';
import { readGlb, readGltf, type ReadMeshes } from '../formats/glb/read-glb';
import type { MeshDecoders } from '../formats/glb/mesh-decoders';
import type { ImportFault } from '../formats/import-report';
import { chooseText, chosenFile, faultOfKind, formatOfFile, wordsOfFile, type ChosenFile } from '../formats/told-files';
import type { LinearMap } from '../geometry/matrix';
import { joinedMeshes } from '../mesh/join-meshes';
import type { KitMeshes } from '../mesh/kit-meshes';
import { readObjFile } from './read-obj-file';
import { soundPieces, type ReadPieces } from './sound-pieces';
import { unpackedFiles } from './unpacked-files';

/** Files that meshes come in, with those that they name. */
export const MESH_FORMATS = [
  'glb',
  'gltf',
  'obj',
  'mtl',
  'png',
  'jpeg',
  'webp',
  'ktx2',
] as const satisfies readonly FormatId[];
const MESHES = ['glb', 'gltf', 'obj'] as const satisfies readonly FormatId[];
const isMesh = (format: FormatId | undefined): boolean => MESHES.some((mesh) => mesh === format);
const chosen = ({ name, bytes }: DroppedFile): ChosenFile => chosenFile(name, bytes);

export interface ReadPiecesInput {
  /** GLB, glTF and OBJ files, with the buffers, MTL files and pictures that they name, or zips of them. */
  readonly files: readonly DroppedFile[];
  /** Metres of one unit of the files. */
  readonly unitMetres: number;
  /** Whether Z is up in the files, as some programs have it. */
  readonly isZUp: boolean;
  /** How meshes are named that are collisions of others; absent: DEFAULT_COLLISION_PATTERN. */
  readonly collisionPattern?: string;
}

/**
 * Reads dropped files into pieces. What cannot be used is left out and told; a file that cannot be read at all does not keep
 * the others from coming in.
 * @throws CoreError 'IMPORT_FILES' when there is no mesh among them or the files are too large, 'IMPORT_UNIT',
 * 'IMPORT_COLLISION' when the pattern is at fault, 'CANCELLED'
 */
export async function readPieces(
  { files: dropped, unitMetres, isZUp, collisionPattern = DEFAULT_COLLISION_PATTERN }: ReadPiecesInput,
  context: RunContext,
  decoders: MeshDecoders = {},
): Promise<ReadPieces> {
  const patternFault = collisionPatternFault(collisionPattern);
  if (patternFault !== '') throw new CoreError('IMPORT_COLLISION', `import: ${patternFault}`, { collisionPattern });
  const files = unpackedFiles(dropped);
  const formats = new Map(files.map((file) => [file, formatOfFile(chosen(file), MESH_FORMATS)]));
  const sources = files.filter((file) => isMesh(formats.get(file)));
  if (sources.length === 0)
    throw new CoreError(
      'IMPORT_FILES',
      `import: ${files.map((file) => `${file.name} is ${wordsOfFile(chosen(file), MESHES)}`).join('; ') || 'there is no file'}. ${chooseText(MESHES)}`,
    );
  const beside = new FilesBeside(files);
  // What comes beside a mesh without being of use to it is told, and keeps nothing out.
  const faults = files.flatMap((file): ImportFault[] => {
    if (isMesh(formats.get(file))) return [];
    const isNamedMesh = /\.(glb|gltf|obj)$/i.test(file.name);
    if (/\.bin$/i.test(file.name) && sources.some((source) => formats.get(source) !== 'obj')) return [];
    const message = faultOfKind(chosen(file), isNamedMesh ? MESHES : MESH_FORMATS);
    return message ? [{ severity: isNamedMesh ? 'error' : 'warning', where: file.name, message }] : [];
  });
  let meshes: KitMeshes = { pieces: [], materials: [], textures: [] };
  for (const [i, file] of sources.entries()) {
    context.checkCancelled();
    context.progress((0.6 * i) / sources.length, `reading ${file.name}`);
    try {
      const read = await readMesh(formats.get(file), file, beside.from(file.name), decoders, collisionPattern);
      faults.push(
        ...read.faults.map((fault) => ({
          ...fault,
          where: sources.length > 1 ? `${file.name}, ${fault.where}` : fault.where,
        })),
      );
      meshes = joinedMeshes(meshes, read.meshes);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      faults.push({ severity: 'error', where: file.name, message: error.message });
    }
  }
  const named = new Set(faults.map(({ where }) => where));
  for (const file of files) {
    const isTold = isMesh(formats.get(file)) || beside.isUsed(file) || named.has(file.name);
    if (!isTold)
      faults.push({ severity: 'note', where: file.name, message: 'is used by none of the meshes; left out' });
  }
  return soundPieces(meshes, mapOf(unitMetres, isZUp), collisionPattern, faults, context);
}

function readMesh(
  format: FormatId | undefined,
  file: DroppedFile,
  beside: FindBeside,
  decoders: MeshDecoders,
  collisionPattern: string,
): ReadMeshes | Promise<ReadMeshes> {
  if (format === 'obj') return readObjFile(file, beside);
  const ownersOf = (name: string): string[] => collisionOwners(collisionPattern, name);
  return (format === 'gltf' ? readGltf : readGlb)(file.bytes, beside, decoders, ownersOf);
}

/** Scales to metres and turns Z up into Y up. @throws CoreError 'IMPORT_UNIT' */
export function mapOf(unitMetres: number, isZUp: boolean): LinearMap {
  if (!(unitMetres > 0) || !Number.isFinite(unitMetres))
    throw new CoreError('IMPORT_UNIT', `import: a unit must be above 0 metres, is ${unitMetres}`);
  const u = unitMetres;
  return isZUp ? [u, 0, 0, 0, 0, -u, 0, u, 0] : [u, 0, 0, 0, u, 0, 0, 0, u];
}
