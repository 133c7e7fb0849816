import type { RunContext } from '../context/run-context';
import type { ImportFault, ImportReport } from '../formats/import-report';
import { writeGlb } from '../formats/glb/write-glb';
import type { LinearMap } from '../geometry/matrix';
import { prunedMeshes } from '../mesh/join-meshes';
import type { KitMeshes, MeshOfPiece, MeshPart } from '../mesh/kit-meshes';
import { meshBounds, stepCost } from '../mesh/mesh-cost';
import { partFault } from '../mesh/mesh-faults';
import { placePart } from '../mesh/place-part';
import { withUses } from '../mesh/texture-uses';
import { MAX_PIECE_MATERIALS, collisionNodeName, isCollisionNode, type PieceStep } from '../model/kit';
import type { Box3 } from '../model/vector';
import { ownCollisions } from './collision/own-collisions';
import { solidPart, weldedSurface } from './collision/welded-surface';
import { FreeNames, plainPieceName } from './piece-name';
import { withArea, withCoordinates, withNormals } from './sound-parts';

/** Largest side of a texture, pixels. */
export const MAX_TEXTURE_PIXELS = 8192;

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
 * Pieces of meshes as they were read: what cannot be used is left out, what can be mended is, and all of it is told.
 * @param map to metres and Y up
 * @param faults what was told before; more is put to it
 * @throws CoreError 'CANCELLED'
 */
export async function soundPieces(
  meshes: KitMeshes,
  map: LinearMap,
  collisionPattern: string,
  faults: ImportFault[],
  context: RunContext,
): Promise<ReadPieces> {
  context.progress(0.6, 'checking meshes');
  const checked = checkedMeshes(withoutHugeTextures(meshes, faults), map, collisionPattern, faults, context);
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
