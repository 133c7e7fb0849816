import {
  GLB_BUFFER,
  Logger,
  Primitive,
  Verbosity,
  WebIO,
  type Accessor,
  type Document,
  type Material,
  type Mesh,
  type Node,
  type Texture,
  type TextureInfo,
  type GLTF,
} from '@gltf-transform/core';
import { CoreError, errorText } from '../../errors';
import { IDENTITY, placePart, type LinearMap } from '../../mesh/place-part';
import type {
  KitMeshes,
  MeshAttribute,
  MeshMaterial,
  MeshOfPiece,
  MeshPart,
  MeshTexture,
  TextureUse,
} from '../../mesh/kit-meshes';
import type { ImportFault } from '../import-report';
import { pictureSize } from '../pictures/picture-size';
import { pictureType } from '../pictures/picture-type';
import { parseJson } from '../../json/canonical-json';
import { decodedText } from '../format-spec';
import { gltfFiles } from '../gltf/gltf-files';
import { checkClaims, openGlb } from './open-glb';

/** A vertex has no more sets of texture coordinates than this. */
const MAX_COORDINATE_SETS = 8;
/** Attributes of skins, which are not taken. */
const SKIN = /^(JOINTS|WEIGHTS)_/;

/** The meshes of a GLB, and what could not be taken over. */
export interface ReadMeshes {
  readonly meshes: KitMeshes;
  readonly faults: readonly ImportFault[];
}

/**
 * Reads a GLB: one piece a mesh, named by the first node that shows it, with that node's turn and scale in its vertices and
 * the node's place as its origin. Values are as they stand, checked by nobody yet.
 * @param beside buffers and pictures that stand in files of their own, by name in small letters
 * @throws CoreError 'GLB_UNREADABLE' naming what its header, a buffer view or an accessor claims, 'GLTF_FILE_MISSING'
 */
export function readGlb(bytes: Uint8Array, beside: ReadonlyMap<string, Uint8Array> = new Map()): Promise<ReadMeshes> {
  const { json, binary } = openGlb(bytes, false);
  return readMeshes(json, beside, binary);
}

/** Reads a glTF as JSON; otherwise as `readGlb`. @throws CoreError 'JSON_UNREADABLE', and as `readGlb` */
export function readGltf(bytes: Uint8Array, beside: ReadonlyMap<string, Uint8Array>): Promise<ReadMeshes> {
  const json = parseJson(decodedText(bytes), 'gltf');
  if (typeof json !== 'object' || json === null || Array.isArray(json))
    throw new CoreError('GLB_UNREADABLE', 'gltf: must be a table at its top');
  return readMeshes(json, beside, undefined);
}

async function readMeshes(
  parsed: object,
  beside: ReadonlyMap<string, Uint8Array>,
  binary: Uint8Array | undefined,
): Promise<ReadMeshes> {
  const json = parsed as LookedAt;
  const { resources, bufferBytes } = gltfFiles(parsed, beside, binary);
  const format = binary ? 'glb' : 'gltf';
  checkClaims(parsed, binary && bufferBytes.length === 0 ? [binary.length] : bufferBytes, (rule) => {
    throw new CoreError('GLB_UNREADABLE', `${format}: ${rule}`);
  });
  let document: Document;
  try {
    if (binary && binary.length > 0) resources[GLB_BUFFER] = new Uint8Array(binary);
    document = await new WebIO()
      .setLogger(new Logger(Verbosity.SILENT))
      .readJSON({ json: json as GLTF.IGLTF, resources });
  } catch (cause) {
    throw new CoreError('GLB_UNREADABLE', `${format}: ${errorText(cause)}`, {}, { cause });
  }
  const root = document.getRoot();
  const faults: ImportFault[] = [];
  const note = (where: string, message: string): void => void faults.push({ severity: 'note', where, message });
  if (root.listSkins().length > 0) note('file', `${root.listSkins().length} skins are left out: pieces are rigid`);
  if (root.listAnimations().length > 0) note('file', `${root.listAnimations().length} animations are left out`);
  for (const name of namesOf(json.extensionsUsed)) note('file', `the extension ${name} is left out`);
  const textures = root.listTextures();
  const materials = root.listMaterials();
  const known = textures.map((texture, i) => readTexture(texture, `texture ${texture.getName() || i + 1}`, faults));
  const kept = known.flatMap((texture) => texture ?? []);
  const numberOf = new Map(
    textures.flatMap((texture, i) => (known[i] ? [[texture, kept.indexOf(known[i])] as const] : [])),
  );
  const users = usersOf(document);
  const pieces = [...users].map(([mesh, nodes], i) => readMesh(mesh, nodes, i, materials, note));
  return {
    meshes: {
      pieces,
      materials: materials.map((material) => readMaterial(material, numberOf, faults)),
      textures: kept,
    },
    faults,
  };
}

/** Meshes in order of the nodes that show them. */
function usersOf(document: Document): Map<Mesh, Node[]> {
  const users = new Map<Mesh, Node[]>();
  for (const node of document.getRoot().listNodes()) {
    const mesh = node.getMesh();
    if (mesh) users.set(mesh, [...(users.get(mesh) ?? []), node]);
  }
  return users;
}

function readMesh(
  mesh: Mesh,
  nodes: readonly Node[],
  index: number,
  materials: readonly Material[],
  note: (where: string, message: string) => void,
): MeshOfPiece {
  const name = nodes[0].getName() || mesh.getName() || `piece ${index + 1}`;
  if (nodes.length > 1)
    note(name, `is used ${nodes.length} times in the file and is imported once; place it in Layout`);
  const m = nodes[0].getWorldMatrix();
  const map: LinearMap = [m[0], m[1], m[2], m[4], m[5], m[6], m[8], m[9], m[10]];
  if (map.some((value, i) => Math.abs(value - IDENTITY[i]) > 1e-6))
    note(name, 'its rotation and scale are now applied to its vertices');
  const parts = mesh.listPrimitives().flatMap((primitive): MeshPart[] => {
    const indices = trianglesOf(primitive);
    if (!indices) {
      note(name, 'a part of points or lines is left out: only triangles are drawn');
      return [];
    }
    if (primitive.listTargets().length > 0) note(name, `${primitive.listTargets().length} morph targets are left out`);
    const material = primitive.getMaterial();
    return [
      placePart(
        {
          material: material ? materials.indexOf(material) : null,
          attributes: readAttributes(primitive),
          indices,
        },
        map,
      ),
    ];
  });
  return { name, parts };
}

function readAttributes(primitive: Primitive): MeshAttribute[] {
  const semantics = primitive.listSemantics().filter((semantic) => !SKIN.test(semantic) && !semantic.startsWith('_'));
  const order = [...semantics].sort((a, b) => rank(a) - rank(b) || (a < b ? -1 : 1));
  return order.map((semantic) => {
    const accessor = primitive.getAttribute(semantic) as Accessor;
    return { semantic, size: accessor.getElementSize(), values: floatsOf(accessor) };
  });
}

function rank(semantic: string): number {
  return semantic === 'POSITION' ? 0 : semantic === 'NORMAL' ? 1 : 2;
}

function floatsOf(accessor: Accessor): Float32Array {
  const array = numbersOf(accessor);
  if (array instanceof Float32Array) return array.slice();
  const size = accessor.getElementSize();
  const values = new Float32Array(accessor.getCount() * size);
  const element: number[] = [];
  for (let i = 0; i < accessor.getCount(); i++) values.set(accessor.getElement(i, element), i * size);
  return values;
}

/** The array behind an accessor; its library's own type for it is a global that only some compilers know. */
function numbersOf(accessor: Accessor): ArrayLike<number> | null {
  return accessor.getArray() as ArrayLike<number> | null;
}

/**
 * Corners of a part's triangles, three each; undefined for points and lines. Triangles that only lead a strip on, with a corner
 * twice, are left out. Source: Khronos, glTF 2.0 specification, section 3.7.2.1.
 */
function trianglesOf(primitive: Primitive): Uint32Array | undefined {
  const corners = readIndices(primitive);
  const mode = primitive.getMode();
  if (mode === Primitive.Mode.TRIANGLES) return corners;
  if (mode !== Primitive.Mode.TRIANGLE_STRIP && mode !== Primitive.Mode.TRIANGLE_FAN) return undefined;
  const triangles: number[] = [];
  for (let i = 0; i + 2 < corners.length; i++) {
    // Every second triangle of a strip is wound the other way about.
    const [a, b] = mode === Primitive.Mode.TRIANGLE_FAN ? [0, i + 1] : [i, i % 2 === 0 ? i + 1 : i + 2];
    const c = mode === Primitive.Mode.TRIANGLE_STRIP && i % 2 === 1 ? i + 1 : i + 2;
    const [p, q, r] = [corners[a], corners[b], corners[c]];
    if (p !== q && q !== r && r !== p) triangles.push(p, q, r);
  }
  return Uint32Array.from(triangles);
}

function readIndices(primitive: Primitive): Uint32Array {
  const indices = primitive.getIndices();
  const array = indices && numbersOf(indices);
  if (array) return Uint32Array.from(array);
  return Uint32Array.from({ length: primitive.getAttribute('POSITION')?.getCount() ?? 0 }, (_unused, i) => i);
}

function readTexture(texture: Texture, where: string, faults: ImportFault[]): MeshTexture | undefined {
  const bytes = texture.getImage();
  // What it is called, or how its name ends, proves nothing.
  const mimeType = (bytes && pictureType(bytes)) ?? texture.getMimeType();
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
      message: `is neither a PNG nor a JPEG that can be read (${mimeType || 'no type given'}); the material is imported without it`,
    });
    return undefined;
  }
  return { name: texture.getName() || where, mimeType, bytes, widthPixels: size[0], heightPixels: size[1] };
}

function readMaterial(material: Material, numberOf: ReadonlyMap<Texture, number>, faults: ImportFault[]): MeshMaterial {
  const use = (texture: Texture | null, info: TextureInfo | null): TextureUse | undefined => {
    const number = texture ? numberOf.get(texture) : undefined;
    if (number === undefined || !info) return undefined;
    if (info.getTexCoord() >= MAX_COORDINATE_SETS) {
      faults.push({
        severity: 'error',
        where: material.getName() || 'material',
        message: `its picture looks up set ${info.getTexCoord()} of texture coordinates, at most ${MAX_COORDINATE_SETS} are read; the material is imported without it`,
      });
      return undefined;
    }
    return {
      texture: number,
      coordinates: info.getTexCoord(),
      wrapS: info.getWrapS(),
      wrapT: info.getWrapT(),
      magFilter: info.getMagFilter(),
      minFilter: info.getMinFilter(),
    };
  };
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
  };
}

/** What this reader itself looks at in a glTF's JSON. */
interface LookedAt {
  readonly extensionsUsed?: unknown;
}

function namesOf(value: unknown): string[] {
  return Array.isArray(value) ? value.filter((one): one is string => typeof one === 'string') : [];
}
