import { blockSurfaceIfAny } from '../geometry/block-solid';
import { plainMaterial, type KitMeshes, type MeshPart } from '../mesh/kit-meshes';
import type { Block } from '../model/block';

/** Blocks as one mesh in the level's frame, flat faces, a part a material; undefined when none encloses anything. */
export function meshOfBlocks(name: string, blocks: readonly Block[]): KitMeshes | undefined {
  const byMaterial = new Map<string, { positions: number[]; normals: number[]; indices: number[] }>();
  for (const block of blocks) {
    const faces = blockSurfaceIfAny(block)?.faces ?? [];
    const into = byMaterial.get(block.material) ?? { positions: [], normals: [], indices: [] };
    if (faces.length > 0) byMaterial.set(block.material, into);
    for (const face of faces) addFace(face, into);
  }
  if (byMaterial.size === 0) return undefined;
  const names = [...byMaterial.keys()].sort();
  const parts = names.map((material, i): MeshPart => {
    const { positions, normals, indices } = byMaterial.get(material) as {
      positions: number[];
      normals: number[];
      indices: number[];
    };
    return {
      material: i,
      attributes: [
        { semantic: 'POSITION', size: 3, values: Float32Array.from(positions) },
        { semantic: 'NORMAL', size: 3, values: Float32Array.from(normals) },
      ],
      indices: Uint32Array.from(indices),
    };
  });
  return { pieces: [{ name, parts }], materials: names.map((material) => plainMaterial(material)), textures: [] };
}

function addFace(
  face: Float64Array,
  { positions, normals, indices }: { positions: number[]; normals: number[]; indices: number[] },
): void {
  // Newell's normal holds for any convex polygon, also one with corners in a line.
  const n = [0, 0, 0];
  for (let i = 0; i < face.length; i += 3) {
    const j = (i + 3) % face.length;
    n[0] += (face[i + 1] - face[j + 1]) * (face[i + 2] + face[j + 2]);
    n[1] += (face[i + 2] - face[j + 2]) * (face[i] + face[j]);
    n[2] += (face[i] - face[j]) * (face[i + 1] + face[j + 1]);
  }
  const length = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
  if (!(length > 0)) return;
  const first = positions.length / 3;
  for (let i = 0; i < face.length; i += 3) {
    positions.push(face[i], face[i + 1], face[i + 2]);
    normals.push(n[0] / length, n[1] / length, n[2] / length);
    if (i >= 6) indices.push(first, first + i / 3 - 1, first + i / 3);
  }
}
