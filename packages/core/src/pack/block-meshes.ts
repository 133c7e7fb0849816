import { faceTexture } from '../geometry/face-texture';
import { plainMaterial, type KitMeshes, type MeshPart } from '../mesh/kit-meshes';
import type { Vector3 } from '../model/vector';
import { materialOf, type BlockRanges, type SolidBlock } from './block-ranges';

/** The arrays of one part, and how far they are filled. */
interface Part {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly textures: Float32Array;
  readonly indices: Uint32Array;
  corners: number;
  filled: number;
}

/** Blocks as one mesh in the level's frame, flat faces with texture coordinates, a part a material; undefined when none encloses anything. */
export function meshOfBlocks(name: string, { solids, parts }: BlockRanges): KitMeshes | undefined {
  if (parts.length === 0) return undefined;
  const byMaterial = new Map(
    parts.map(({ material, corners, indices }): [string, Part] => [
      material,
      {
        positions: new Float32Array(corners * 3),
        normals: new Float32Array(corners * 3),
        textures: new Float32Array(corners * 2),
        indices: new Uint32Array(indices),
        corners: 0,
        filled: 0,
      },
    ]),
  );
  for (const solid of solids)
    solid?.surface.faces.forEach((corners, i) => {
      const part = byMaterial.get(materialOf(solid, i));
      if (part) addFace(solid, i, corners, part);
    });
  return {
    pieces: [{ name, parts: [...byMaterial.values()].map(meshPart) }],
    materials: parts.map(({ material }) => plainMaterial(material)),
    textures: [],
  };
}

function meshPart({ positions, normals, textures, indices }: Part, material: number): MeshPart {
  return {
    material,
    attributes: [
      { semantic: 'POSITION', size: 3, values: positions },
      { semantic: 'NORMAL', size: 3, values: normals },
      { semantic: 'TEXCOORD_0', size: 2, values: textures },
    ],
    indices,
  };
}

function addFace({ block, own }: SolidBlock, face: number, corners: Float64Array, part: Part): void {
  const normal = normalOf(corners);
  const first = part.corners;
  part.positions.set(corners, first * 3);
  part.textures.set(faceTexture(corners, normal, block, own[face]), first * 2);
  for (let i = 0; i < corners.length / 3; i++) {
    part.normals.set(normal, (first + i) * 3);
    if (i < 2) continue;
    part.indices.set([first, first + i - 1, first + i], part.filled);
    part.filled += 3;
  }
  part.corners += corners.length / 3;
}

/** Newell's normal, which holds for any convex polygon, also one with corners in a line; +Y for one without area. */
function normalOf(face: Float64Array): Vector3 {
  const n = [0, 0, 0];
  for (let i = 0; i < face.length; i += 3) {
    const j = (i + 3) % face.length;
    n[0] += (face[i + 1] - face[j + 1]) * (face[i + 2] + face[j + 2]);
    n[1] += (face[i + 2] - face[j + 2]) * (face[i] + face[j]);
    n[2] += (face[i] - face[j]) * (face[i + 1] + face[j + 1]);
  }
  const length = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
  return length > 0 ? [n[0] / length, n[1] / length, n[2] / length] : [0, 1, 0];
}
