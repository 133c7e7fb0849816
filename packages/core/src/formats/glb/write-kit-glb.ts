import { Document, WebIO } from '@gltf-transform/core';

/** A mesh of a piece for writing: one primitive a material. */
export interface KitMesh {
  readonly name: string;
  readonly parts: readonly {
    /** sRGB hexadecimal colour and roughness 0 to 1. */
    readonly material: { readonly name: string; readonly colour: readonly [number, number, number]; readonly roughness: number };
    /** xyz triples, metres. */
    readonly positions: Float32Array;
    /** xyz triples of length 1. */
    readonly normals: Float32Array;
    /** Counter-clockwise triangles. */
    readonly indices: Uint32Array;
  }[];
}

/** One GLB with a node for every mesh, in the order given. Equal input gives equal bytes. */
export async function writeKitGlb(meshes: readonly KitMesh[]): Promise<Uint8Array> {
  const document = new Document();
  document.getRoot().getAsset().generator = 'Stravel';
  const buffer = document.createBuffer();
  const scene = document.createScene('kit');
  const materials = new Map<string, ReturnType<Document['createMaterial']>>();
  for (const { name, parts } of meshes) {
    const mesh = document.createMesh(name);
    for (const { material, positions, normals, indices } of parts) {
      let made = materials.get(material.name);
      if (!made) {
        made = document
          .createMaterial(material.name)
          .setBaseColorFactor([...material.colour, 1])
          .setRoughnessFactor(material.roughness)
          .setMetallicFactor(0);
        materials.set(material.name, made);
      }
      mesh.addPrimitive(
        document
          .createPrimitive()
          .setMaterial(made)
          .setAttribute('POSITION', document.createAccessor().setType('VEC3').setArray(positions).setBuffer(buffer))
          .setAttribute('NORMAL', document.createAccessor().setType('VEC3').setArray(normals).setBuffer(buffer))
          .setIndices(document.createAccessor().setType('SCALAR').setArray(indices).setBuffer(buffer)),
      );
    }
    scene.addChild(document.createNode(name).setMesh(mesh));
  }
  return new WebIO().writeBinary(document);
}
