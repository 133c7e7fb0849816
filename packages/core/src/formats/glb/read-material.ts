import type { Document, Material, Texture, TextureInfo } from '@gltf-transform/core';
import { KHRTextureTransform, type Transform } from '@gltf-transform/extensions';
import type {
  KitMeshes,
  MaterialExtension,
  MeshMaterial,
  MeshTexture,
  TextureTransform,
  TextureUse,
} from '../../mesh/kit-meshes';
import type { ImportFault } from '../import-report';
import { ktx2MemoryBytes, pictureSize } from '../pictures/picture-size';
import { textureType } from '../pictures/picture-type';
import { SaidOfMaterial } from './material-extension';

/** A vertex has no more sets of texture coordinates than this. */
const MAX_COORDINATE_SETS = 8;

/** A texture with its size, undefined where it has no picture that can be read. */
function readTexture(texture: Texture, where: string, faults: ImportFault[]): MeshTexture | undefined {
  const bytes = texture.getImage();
  // What it is called, or how its name ends, proves nothing.
  const mimeType = (bytes && textureType(bytes)) ?? texture.getMimeType();
  if (!bytes || bytes.length === 0) {
    faults.push({
      severity: 'error',
      where,
      message: `its picture ${texture.getURI() || 'in the file'} is missing; the material is imported without it`,
    });
    return undefined;
  }
  const size = pictureSize(bytes, mimeType);
  if (!size) {
    faults.push({
      severity: 'error',
      where,
      message: `is no PNG, JPEG, WebP or KTX2 that can be read (${mimeType || 'no type given'}); the material is imported without it`,
    });
    return undefined;
  }
  const memoryBytes = mimeType === 'image/ktx2' ? ktx2MemoryBytes(bytes) : undefined;
  return {
    name: texture.getName() || where,
    mimeType,
    bytes,
    widthPixels: size[0],
    heightPixels: size[1],
    ...(memoryBytes ? { memoryBytes } : {}),
  };
}

/** @param numberOf of each texture that could be read */
function readMaterial(material: Material, numberOf: ReadonlyMap<Texture, number>, faults: ImportFault[]): MeshMaterial {
  const use = (texture: Texture | null, info: TextureInfo | null): TextureUse | undefined => {
    const number = texture ? numberOf.get(texture) : undefined;
    if (number === undefined || !info) return undefined;
    const transform = info.getExtension<Transform>(KHRTextureTransform.EXTENSION_NAME);
    const coordinates = transform?.getTexCoord() ?? info.getTexCoord();
    if (coordinates >= MAX_COORDINATE_SETS) {
      faults.push({
        severity: 'error',
        where: material.getName() || 'material',
        message: `its picture looks up set ${coordinates} of texture coordinates, at most ${MAX_COORDINATE_SETS} are read; the material is imported without it`,
      });
      return undefined;
    }
    return {
      texture: number,
      coordinates,
      wrapS: info.getWrapS(),
      wrapT: info.getWrapT(),
      magFilter: info.getMagFilter(),
      minFilter: info.getMinFilter(),
      ...(transform ? { transform: readTransform(transform) } : {}),
    };
  };
  const said = material.listExtensions().flatMap((one) => (one instanceof SaidOfMaterial ? one : []));
  const extensions = said.map((one): MaterialExtension => ({
    name: one.extensionName,
    values: one.values(),
    maps: Object.fromEntries(
      one.pictures().flatMap(({ key, texture, info, factors }) => {
        const read = use(texture, info);
        return read ? [[key, { ...read, factors }]] : [];
      }),
    ),
  }));
  const maps = {
    baseColour: use(material.getBaseColorTexture(), material.getBaseColorTextureInfo()),
    metallicRoughness: use(material.getMetallicRoughnessTexture(), material.getMetallicRoughnessTextureInfo()),
    normal: use(material.getNormalTexture(), material.getNormalTextureInfo()),
    occlusion: use(material.getOcclusionTexture(), material.getOcclusionTextureInfo()),
    emissive: use(material.getEmissiveTexture(), material.getEmissiveTextureInfo()),
  };
  return {
    name: material.getName(),
    baseColour: material.getBaseColorFactor(),
    metallic: material.getMetallicFactor(),
    roughness: material.getRoughnessFactor(),
    emissive: material.getEmissiveFactor(),
    alphaMode: material.getAlphaMode(),
    alphaCutoff: material.getAlphaCutoff(),
    doubleSided: material.getDoubleSided(),
    normalScale: material.getNormalScale(),
    occlusionStrength: material.getOcclusionStrength(),
    maps: Object.fromEntries(Object.entries(maps).filter(([, value]) => value !== undefined)),
    extensions: extensions.sort((a, b) => (a.name < b.name ? -1 : 1)),
  };
}

function readTransform(transform: Transform): TextureTransform {
  const [[x, y], [width, height]] = [transform.getOffset(), transform.getScale()];
  return { offset: [x, y], rotation: transform.getRotation(), scale: [width, height] };
}

/** Materials and textures of a file; a material loses what cannot be read, which is told. */
export function readLooks(document: Document, faults: ImportFault[]): Pick<KitMeshes, 'materials' | 'textures'> {
  const root = document.getRoot();
  const textures = root.listTextures();
  const known = textures.map((texture, i) => readTexture(texture, `texture ${texture.getName() || i + 1}`, faults));
  const kept = known.flatMap((texture) => texture ?? []);
  const numberOf = new Map(
    textures.flatMap((texture, i) => (known[i] ? [[texture, kept.indexOf(known[i])] as const] : [])),
  );
  return {
    materials: root.listMaterials().map((material) => readMaterial(material, numberOf, faults)),
    textures: kept,
  };
}
