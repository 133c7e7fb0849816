import type { PieceStep } from '../model/kit';
import type { Box3 } from '../model/vector';
import { positionsOf, type KitMeshes, type MeshOfPiece } from './kit-meshes';
import { usesOf } from './texture-uses';

/** Bytes of a number of an attribute, or of an index, in memory. */
export const NUMBER_BYTES = 4;
/** A texture with all its mips takes a third more than its largest one, four bytes a pixel. */
const TEXTURE_BYTES_A_PIXEL = (4 * 4) / 3;

/**
 * What a mesh costs: vertices and indices, and at the full step the textures of its materials, with mips. A texture that
 * several pieces use is counted with each.
 */
export function stepCost(
  mesh: MeshOfPiece,
  { materials, textures }: Omit<KitMeshes, 'pieces'>,
  step: number,
): PieceStep {
  let [triangles, vertices, bytes] = [0, 0, 0];
  const used = new Set<number>();
  for (const { attributes, indices, material } of mesh.parts) {
    triangles += indices.length / 3;
    vertices += attributes[0].values.length / 3;
    bytes +=
      indices.length * NUMBER_BYTES + attributes.reduce((sum, { values }) => sum + values.length * NUMBER_BYTES, 0);
    for (const use of material === null ? [] : usesOf(materials[material])) used.add(use.texture);
  }
  if (step === 0)
    for (const texture of used) {
      const { widthPixels, heightPixels, memoryBytes } = textures[texture];
      bytes += memoryBytes ?? textureBytes(widthPixels, heightPixels);
    }
  return {
    triangles,
    vertices,
    materials: Math.max(1, new Set(mesh.parts.map(({ material }) => material)).size),
    bytes,
  };
}

/** Bytes of a texture in memory, with its mips. */
export function textureBytes(widthPixels: number, heightPixels: number): number {
  return Math.ceil(widthPixels * heightPixels * TEXTURE_BYTES_A_PIXEL);
}

/** Bounds of a mesh with at least one vertex, metres. */
export function meshBounds(mesh: MeshOfPiece): Box3 {
  return positionBounds(mesh.parts.map(positionsOf));
}

/** Bounds of lists of xyz triples with at least one of them, metres. */
export function positionBounds(lists: readonly Float32Array[]): Box3 {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const positions of lists) {
    for (let i = 0; i < positions.length; i++) {
      min[i % 3] = Math.min(min[i % 3], positions[i]);
      max[i % 3] = Math.max(max[i % 3], positions[i]);
    }
  }
  // −0 becomes 0.
  return { min: [min[0] + 0, min[1] + 0, min[2] + 0], max: [max[0] + 0, max[1] + 0, max[2] + 0] };
}
