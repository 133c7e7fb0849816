import type { RunContext } from '../context/run-context';
import { CoreError } from '../errors';
import type { FormatId } from '../formats';
import type { DroppedFile } from '../formats/dropped-file';
import { FilesBeside, type FindBeside } from '../formats/files-beside';
import { chooseText, chosenFile, faultOfKind, formatOfFile, wordsOfFile, type ChosenFile } from '../formats/told-files';
import { readGlb, readGltf, type ReadMeshes } from '../formats/glb/read-glb';
import type { MeshDecoders } from '../formats/glb/mesh-decoders';
import { writeGlb } from '../formats/glb/write-glb';
import { joinedMeshes, prunedMeshes } from '../mesh/join-meshes';
import type { KitMeshes, MeshOfPiece, MeshPart } from '../mesh/kit-meshes';
import { meshBounds, stepCost } from '../mesh/mesh-cost';
import { partFault } from '../mesh/mesh-faults';
import { placePart, type LinearMap } from '../mesh/place-part';
import { withUses } from '../mesh/texture-uses';
import { MAX_PIECE_MATERIALS, collisionNodeName, isCollisionNode, type PieceStep } from '../model/kit';
import type { Box3 } from '../model/vector';
import type { ImportFault, ImportReport } from '../formats/import-report';
import { DEFAULT_COLLISION_PATTERN, collisionOwners, collisionPatternFault } from '../fields/collision-pattern';
import { ownCollisions } from './collision/own-collisions';
import { solidPart, weldedSurface } from './collision/welded-surface';
import { FreeNames, plainPieceName } from './piece-name';
import { readObjFile } from './read-obj-file';
import { withArea, withCoordinates, withNormals } from './sound-parts';
import { MAX_IMPORT_BYTES, unpackedFiles } from './unpacked-files';

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

/** Largest side of a texture, pixels. */
export const MAX_TEXTURE_PIXELS = 8192;

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

/** A piece that was read, ready to be put into a kit. */
export interface ReadPiece {
  readonly name: string;
  readonly bounds: Box3;
  readonly step: PieceStep;
  /** Triangles of the collision that came with it; absent where none did. */
  readonly collisionTriangles?: number;
}

export interface ReadPieces {
  readonly report: ImportReport;
  readonly pieces: readonly ReadPiece[];
  /** A GLB with one node a piece, and one a collision; null when no piece came through. */
  readonly glb: Uint8Array | null;
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
  const total = files.reduce((sum, { bytes }) => sum + bytes.length, 0);
  if (total > MAX_IMPORT_BYTES)
    throw new CoreError(
      'IMPORT_FILES',
      `import: takes at most ${MAX_IMPORT_BYTES} bytes together, the files have ${total}`,
    );
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
  context.progress(0.6, 'checking meshes');
  const checked = checkedMeshes(
    withoutHugeTextures(meshes, faults),
    mapOf(unitMetres, isZUp),
    collisionPattern,
    faults,
    context,
  );
  context.progress(0.8, 'writing pieces');
  const collisions = new Map(checked.pieces.map((mesh) => [mesh.name, mesh]));
  const pieces = checked.pieces
    .filter(({ name }) => !isCollisionNode(name))
    .map((mesh): ReadPiece => {
      const own = collisions.get(collisionNodeName(mesh.name));
      return {
        name: mesh.name,
        bounds: meshBounds(mesh),
        step: stepCost(mesh, checked, 0),
        ...(own ? { collisionTriangles: own.parts[0].indices.length / 3 } : {}),
      };
    });
  return { report: reportOf(checked, pieces, faults), pieces, glb: pieces.length > 0 ? await writeGlb(checked) : null };
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

/** Scales to metres and turns Z up into Y up. */
function mapOf(unitMetres: number, isZUp: boolean): LinearMap {
  if (!(unitMetres > 0) || !Number.isFinite(unitMetres))
    throw new CoreError('IMPORT_UNIT', `import: a unit must be above 0 metres, is ${unitMetres}`);
  const u = unitMetres;
  return isZUp ? [u, 0, 0, 0, 0, -u, 0, u, 0] : [u, 0, 0, 0, u, 0, 0, 0, u];
}

/** Materials lose textures that are too large for any device. */
function withoutHugeTextures(meshes: KitMeshes, faults: ImportFault[]): KitMeshes {
  const isHuge = meshes.textures.map(({ name, widthPixels, heightPixels }) => {
    const huge = Math.max(widthPixels, heightPixels) > MAX_TEXTURE_PIXELS;
    if (huge)
      faults.push({
        severity: 'error',
        where: name,
        message: `is ${widthPixels} by ${heightPixels} pixels, at most ${MAX_TEXTURE_PIXELS} are taken; the material is imported without it`,
      });
    return huge;
  });
  if (!isHuge.includes(true)) return meshes;
  const materials = meshes.materials.map((material) =>
    withUses(material, (use) => (isHuge[use.texture] ? undefined : use)),
  );
  return { ...meshes, materials };
}

function checkedMeshes(
  meshes: KitMeshes,
  map: LinearMap,
  collisionPattern: string,
  faults: ImportFault[],
  context: RunContext,
): KitMeshes {
  const names = new FreeNames();
  const pieces: MeshOfPiece[] = [];
  const sorted = ownCollisions(meshes.pieces, collisionPattern, faults);
  for (const [i, mesh] of sorted.pieces.entries()) {
    const { name, parts } = mesh;
    context.checkCancelled();
    context.progress(0.6 + (0.2 * i) / sorted.pieces.length, `checking ${name}`);
    const told = (message: string): void => void faults.push({ severity: 'warning', where: name, message });
    const left = parts.map((part) => withArea(part, told)).filter(({ indices }) => indices.length > 0);
    const materials = new Set(left.map(({ material }) => material)).size;
    const fault =
      left.length === 0
        ? 'has no triangles'
        : materials > MAX_PIECE_MATERIALS
          ? `has ${materials} materials, a piece has at most ${MAX_PIECE_MATERIALS}`
          : left.map(partFault).find((one) => one !== undefined);
    if (fault !== undefined) {
      faults.push({ severity: 'error', where: name, message: `${fault}; the piece is left out` });
      continue;
    }
    const free = names.take(plainPieceName(name) || 'piece');
    if (free !== name) faults.push({ severity: 'note', where: name, message: `is called “${free}” in the kit` });
    pieces.push({
      name: free,
      parts: left.map((part) => withCoordinates(withNormals(placePart(part, map), told), meshes.materials, told)),
    });
    const own = collisionOf(sorted.partsOf.get(mesh) ?? [], map, told);
    if (own) pieces.push({ name: collisionNodeName(free), parts: [own] });
  }
  return prunedMeshes({ ...meshes, pieces });
}

/** The collision of a piece as one part, without what only drawing needs; undefined where nothing of it can be used. */
function collisionOf(
  parts: readonly MeshPart[],
  map: LinearMap,
  told: (message: string) => void,
): MeshPart | undefined {
  const sound = parts
    .map((part) => withArea({ ...part, attributes: part.attributes.slice(0, 1) }, () => undefined))
    .filter((part) => part.indices.length > 0 && partFault(part) === undefined);
  if (parts.length > 0 && sound.length === 0) told('has a collision without triangles; it is left out');
  if (sound.length === 0) return undefined;
  return solidPart(weldedSurface(sound.map((part) => placePart(part, map))));
}

function reportOf(
  { pieces: all, materials, textures }: KitMeshes,
  read: readonly ReadPiece[],
  faults: readonly ImportFault[],
): ImportReport {
  const pieces = all.filter(({ name }) => !isCollisionNode(name));
  return {
    pieces: pieces.map(({ name, parts }, i) => ({
      name,
      parts: parts.length,
      vertices: read[i].step.vertices,
      triangles: read[i].step.triangles,
      materials: [...new Set(parts.flatMap(({ material }) => (material === null ? [] : [materials[material].name])))],
      bytes: read[i].step.bytes,
      bounds: read[i].bounds,
    })),
    materials: materials.map(({ name }) => name),
    textures: textures.map(({ name, widthPixels, heightPixels, bytes }) => ({
      name,
      widthPixels,
      heightPixels,
      bytes: bytes.length,
    })),
    faults,
  };
}
