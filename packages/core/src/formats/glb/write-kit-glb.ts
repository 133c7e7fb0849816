import { plainMaterial, type MeshMaterial } from '../../mesh/kit-meshes';
import { writeGlb } from './write-glb';

/** A mesh of a piece for writing: one part a material. */
export interface KitMesh {
  readonly name: string;
  readonly parts: readonly {
    /** Linear colour and roughness 0 to 1. */
    readonly material: {
      readonly name: string;
      readonly colour: readonly [number, number, number];
      readonly roughness: number;
    };
    /** xyz triples, metres. */
    readonly positions: Float32Array;
    /** xyz triples of length 1. */
    readonly normals: Float32Array;
    /** Counter-clockwise triangles. */
    readonly indices: Uint32Array;
  }[];
}

/** One GLB of meshes in plain colours. Materials of one name are one. Equal input gives equal bytes. */
export async function writeKitGlb(meshes: readonly KitMesh[]): Promise<Uint8Array> {
  const numbers = new Map<string, number>();
  const materials: MeshMaterial[] = [];
  const numberOf = ({ name, colour, roughness }: KitMesh['parts'][number]['material']): number => {
    const known = numbers.get(name);
    if (known !== undefined) return known;
    numbers.set(name, materials.length);
    return materials.push(plainMaterial(name, { baseColour: [...colour, 1], roughness })) - 1;
  };
  const pieces = meshes.map(({ name, parts }) => ({
    name,
    parts: parts.map(({ material, positions, normals, indices }) => ({
      material: numberOf(material),
      attributes: [
        { semantic: 'POSITION', size: 3, values: positions },
        { semantic: 'NORMAL', size: 3, values: normals },
      ],
      indices,
    })),
  }));
  return writeGlb({ pieces, materials, textures: [] });
}
