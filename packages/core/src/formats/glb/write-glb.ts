import { Document, type Material, type Texture, type TextureInfo } from '@gltf-transform/core';
import { EXTTextureWebP, KHRTextureBasisu, KHRTextureTransform } from '@gltf-transform/extensions';
import {
  TEXTURE_SLOTS,
  type KitMeshes,
  type MeshMaterial,
  type TextureSlot,
  type TextureUse,
} from '../../mesh/kit-meshes';
import { glbIo } from './glb-io';
import { keptExtension } from './material-extension';

const TYPES = ['SCALAR', 'SCALAR', 'VEC2', 'VEC3', 'VEC4'] as const;
const MAX_SHORT_INDEX = 65535;

/** One GLB with a node for every mesh, in the order given; materials that no mesh uses are left out. Equal input gives equal bytes. */
export async function writeGlb({ pieces, materials, textures }: KitMeshes): Promise<Uint8Array> {
  const document = new Document();
  document.getRoot().getAsset().generator = 'Stravel';
  const buffer = document.createBuffer();
  const scene = document.createScene('kit');
  const madeTextures = new Map<number, Texture>();
  const textureOf = (index: number): Texture => {
    const { name, mimeType, bytes } = textures[index];
    const made =
      madeTextures.get(index) ?? document.createTexture(name).setMimeType(mimeType).setImage(new Uint8Array(bytes));
    madeTextures.set(index, made);
    // Readers that do not know these pictures cannot show the material at all.
    if (mimeType === 'image/webp') document.createExtension(EXTTextureWebP).setRequired(true);
    if (mimeType === 'image/ktx2') document.createExtension(KHRTextureBasisu).setRequired(true);
    return made;
  };
  const madeMaterials = new Map<number, Material>();
  const materialOf = (index: number): Material => {
    const made = madeMaterials.get(index) ?? makeMaterial(document, materials[index], textureOf);
    madeMaterials.set(index, made);
    return made;
  };
  for (const { name, parts } of pieces) {
    const mesh = document.createMesh(name);
    for (const { material, attributes, indices } of parts) {
      const primitive = document.createPrimitive();
      if (material !== null) primitive.setMaterial(materialOf(material));
      for (const { semantic, size, values } of attributes) {
        primitive.setAttribute(
          semantic,
          document.createAccessor().setType(TYPES[size]).setArray(ownArray(values)).setBuffer(buffer),
        );
      }
      const vertices = attributes[0].values.length / 3;
      const array = vertices <= MAX_SHORT_INDEX ? Uint16Array.from(indices) : new Uint32Array(indices);
      primitive.setIndices(document.createAccessor().setType('SCALAR').setArray(array).setBuffer(buffer));
      mesh.addPrimitive(primitive);
    }
    scene.addChild(document.createNode(name).setMesh(mesh));
  }
  const used = document
    .getRoot()
    .listExtensionsUsed()
    .map(({ extensionName }) => extensionName);
  return (await glbIo(used)).writeBinary(document);
}

/** The same numbers, not copied where they need not be: they are only read. */
function ownArray(values: Float32Array): Float32Array<ArrayBuffer> {
  const { buffer, byteOffset, length } = values;
  return buffer instanceof ArrayBuffer ? new Float32Array(buffer, byteOffset, length) : new Float32Array(values);
}

/** How each texture of a material is set and described in glTF. */
const SLOTS: Readonly<
  Record<
    TextureSlot,
    {
      readonly set: (material: Material, texture: Texture) => unknown;
      readonly info: (material: Material) => TextureInfo | null;
    }
  >
> = {
  baseColour: { set: (m, t) => m.setBaseColorTexture(t), info: (m) => m.getBaseColorTextureInfo() },
  metallicRoughness: {
    set: (m, t) => m.setMetallicRoughnessTexture(t),
    info: (m) => m.getMetallicRoughnessTextureInfo(),
  },
  normal: { set: (m, t) => m.setNormalTexture(t), info: (m) => m.getNormalTextureInfo() },
  occlusion: { set: (m, t) => m.setOcclusionTexture(t), info: (m) => m.getOcclusionTextureInfo() },
  emissive: { set: (m, t) => m.setEmissiveTexture(t), info: (m) => m.getEmissiveTextureInfo() },
};

function makeMaterial(document: Document, material: MeshMaterial, textureOf: (index: number) => Texture): Material {
  const made = document
    .createMaterial(material.name)
    .setBaseColorFactor([...material.baseColour])
    .setMetallicFactor(material.metallic)
    .setRoughnessFactor(material.roughness)
    .setEmissiveFactor([...material.emissive])
    .setAlphaMode(material.alphaMode)
    .setAlphaCutoff(material.alphaCutoff)
    .setDoubleSided(material.doubleSided)
    .setNormalScale(material.normalScale)
    .setOcclusionStrength(material.occlusionStrength);
  for (const slot of TEXTURE_SLOTS) {
    const use = material.maps[slot];
    if (!use) continue;
    SLOTS[slot].set(made, textureOf(use.texture));
    describeUse(document, SLOTS[slot].info(made), use);
  }
  for (const { name, values, maps } of material.extensions) {
    const said = document.createExtension(keptExtension(name)).say(made).setValues(values);
    for (const [key, { factors, ...use }] of Object.entries(maps))
      describeUse(document, said.addPicture(key, textureOf(use.texture), factors), use);
  }
  return made;
}

function describeUse(document: Document, info: TextureInfo | null, use: TextureUse): void {
  if (use.transform) {
    const { offset, rotation, scale } = use.transform;
    const transform = document.createExtension(KHRTextureTransform).createTransform();
    transform
      .setOffset([...offset])
      .setRotation(rotation)
      .setScale([...scale]);
    info?.setExtension(KHRTextureTransform.EXTENSION_NAME, transform);
  }
  info
    ?.setTexCoord(use.coordinates)
    .setWrapS(use.wrapS as ReturnType<TextureInfo['getWrapS']>)
    .setWrapT(use.wrapT as ReturnType<TextureInfo['getWrapT']>)
    .setMagFilter(use.magFilter as ReturnType<TextureInfo['getMagFilter']>)
    .setMinFilter(use.minFilter as ReturnType<TextureInfo['getMinFilter']>);
}
