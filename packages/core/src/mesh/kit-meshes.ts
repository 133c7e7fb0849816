import type { Vector3 } from '../model/vector';
/** A picture of a material, as its file holds it. */
export interface MeshTexture {
  readonly name: string;
  /** 'image/png', 'image/jpeg', 'image/webp' or 'image/ktx2'. */
  readonly mimeType: string;
  readonly bytes: Uint8Array;
  readonly widthPixels: number;
  readonly heightPixels: number;
  /** In memory with its mips, where the file itself says so; absent where its pixels do. */
  readonly memoryBytes?: number;
}

/** How a picture lies on a surface, as KHR_texture_transform has it: scaled, turned, then moved. */
export interface TextureTransform {
  readonly offset: readonly [number, number];
  /** Radians, counter-clockwise. */
  readonly rotation: number;
  readonly scale: readonly [number, number];
}

/** One use of a texture by a material; numbers of wrapping and filters are those of glTF 2.0. */
export interface TextureUse {
  /** Index among the textures. */
  readonly texture: number;
  /** Number of the set of texture coordinates. */
  readonly coordinates: number;
  readonly wrapS: number;
  readonly wrapT: number;
  readonly magFilter: number | null;
  readonly minFilter: number | null;
  /** Absent where the picture lies as its coordinates say. */
  readonly transform?: TextureTransform;
}

/** What an extension says of a material beside glTF's core; named and valued as in the file. */
export interface MaterialExtension {
  /** KHR_materials_ and so on. */
  readonly name: string;
  readonly values: Readonly<Record<string, MaterialValue>>;
  /** Its pictures by their key, each with the numbers beside it, as a normal picture's `scale`. */
  readonly maps: Readonly<Record<string, TextureUse & { readonly factors: Readonly<Record<string, number>> }>>;
}

export type MaterialValue = number | boolean | readonly number[];

export const TEXTURE_SLOTS = ['baseColour', 'metallicRoughness', 'normal', 'occlusion', 'emissive'] as const;
export type TextureSlot = (typeof TEXTURE_SLOTS)[number];

/** A material of glTF 2.0's core, metallic and roughness, and what its extensions say. */
export interface MeshMaterial {
  readonly name: string;
  /** Linear, 0 to 1. */
  readonly baseColour: readonly [number, number, number, number];
  readonly metallic: number;
  readonly roughness: number;
  readonly emissive: readonly [number, number, number];
  readonly alphaMode: 'OPAQUE' | 'MASK' | 'BLEND';
  readonly alphaCutoff: number;
  readonly doubleSided: boolean;
  readonly normalScale: number;
  readonly occlusionStrength: number;
  readonly maps: Readonly<Partial<Record<TextureSlot, TextureUse>>>;
  /** In order of their names. */
  readonly extensions: readonly MaterialExtension[];
}

/** One attribute of all vertices of a part. */
export interface MeshAttribute {
  /** As in glTF: POSITION, NORMAL, TANGENT, TEXCOORD_0, COLOR_0 … */
  readonly semantic: string;
  /** Numbers a vertex, 1 to 4. */
  readonly size: number;
  readonly values: Float32Array;
}

/** The triangles of a piece that share a material. */
export interface MeshPart {
  /** Index among the materials, null for none. */
  readonly material: number | null;
  /** POSITION first. */
  readonly attributes: readonly MeshAttribute[];
  /** Counter-clockwise triangles. */
  readonly indices: Uint32Array;
}

/** A piece, or a step of one, as triangles. */
export interface MeshOfPiece {
  readonly name: string;
  /** Where its origin stands in the scene of its file, in units of the file; absent where it is that of the scene. */
  readonly at?: Vector3;
  readonly parts: readonly MeshPart[];
}

/** The meshes of a kit as plain data. */
export interface KitMeshes {
  readonly pieces: readonly MeshOfPiece[];
  readonly materials: readonly MeshMaterial[];
  readonly textures: readonly MeshTexture[];
}

/** A plain matt material. */
export function plainMaterial(name: string, over: Partial<MeshMaterial> = {}): MeshMaterial {
  return {
    name,
    baseColour: [0.6, 0.6, 0.6, 1],
    metallic: 0,
    roughness: 1,
    emissive: [0, 0, 0],
    alphaMode: 'OPAQUE',
    alphaCutoff: 0.5,
    doubleSided: false,
    normalScale: 1,
    occlusionStrength: 1,
    maps: {},
    extensions: [],
    ...over,
  };
}

/** xyz triples of a part, metres. */
export function positionsOf(part: MeshPart): Float32Array {
  return part.attributes[0].values;
}
