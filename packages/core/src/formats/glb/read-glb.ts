import {
  Accessor,
  GLB_BUFFER,
  Logger,
  type Primitive,
  Verbosity,
  type Document,
  type GLTF,
  type Material,
  type Mesh,
  type Node,
} from '@gltf-transform/core';
import { EXTMeshGPUInstancing, type InstancedMesh } from '@gltf-transform/extensions';
import { CoreError, errorText } from '../../errors';
import { counted } from '../../counted';
import { IDENTITY, movePart, placePart, type LinearMap } from '../../mesh/place-part';
import type { Vector3 } from '../../model/vector';
import type { KitMeshes, MeshOfPiece, MeshPart } from '../../mesh/kit-meshes';
import type { ImportFault } from '../import-report';
import { parseJson } from '../../json/canonical-json';
import { decodedText } from '../format-spec';
import type { FindBeside } from '../files-beside';
import { gltfFiles } from '../gltf/gltf-files';
import { glbIo, isReadExtension } from './glb-io';
import type { MeshDecoders } from './mesh-decoders';
import { leftOut } from './left-out';
import { checkSparse } from './check-sparse';
import { checkTrees } from './check-trees';
import { checkClaims, openGlb } from './open-glb';
import { morphed, skinned } from './part-at-rest';
import { readMaterial, readTexture } from './read-material';
import { readAttributes, trianglesOf } from './read-part';
import { meshUsers, type OwnersOf } from './mesh-users';
import { placeOf, sceneFrames, type Matrix } from './scene-frames';
import { soundRotations } from './sound-rotations';

const NO_OWNERS: OwnersOf = () => [];

/** The meshes of a GLB, and what could not be taken over. */
export interface ReadMeshes {
  readonly meshes: KitMeshes;
  readonly faults: readonly ImportFault[];
}

/**
 * Reads a GLB: one piece a mesh, named by the first node that shows it, with that node's turn and scale in its vertices and
 * the node's place as its origin. Values are as they stand, checked by nobody yet.
 * @param beside finds buffers and pictures that stand in files of their own
 * @param ownersOf whose collision a node is: such a node shows its mesh by itself, though others show that too, and only where it stands
 * by the first node that shows the other mesh
 * @throws CoreError 'GLB_UNREADABLE' naming what its header, a buffer view or an accessor claims, 'GLTF_FILE_MISSING',
 * 'GLB_DECODER' where what unpacks it cannot be loaded
 */
export function readGlb(
  bytes: Uint8Array,
  beside: FindBeside = () => undefined,
  decoders: MeshDecoders = {},
  ownersOf: OwnersOf = NO_OWNERS,
): Promise<ReadMeshes> {
  const { json, binary } = openGlb(bytes, false);
  return readMeshes(json, beside, decoders, ownersOf, binary);
}

/** Reads a glTF as JSON; otherwise as `readGlb`. @throws CoreError 'JSON_UNREADABLE', and as `readGlb` */
export function readGltf(
  bytes: Uint8Array,
  beside: FindBeside,
  decoders: MeshDecoders = {},
  ownersOf: OwnersOf = NO_OWNERS,
): Promise<ReadMeshes> {
  const json = parseJson(decodedText(bytes), 'gltf');
  if (typeof json !== 'object' || json === null || Array.isArray(json))
    throw new CoreError('GLB_UNREADABLE', 'gltf: must be a table at its top');
  return readMeshes(json, beside, decoders, ownersOf, undefined);
}

async function readMeshes(
  parsed: object,
  beside: FindBeside,
  decoders: MeshDecoders,
  ownersOf: OwnersOf,
  binary: Uint8Array | undefined,
): Promise<ReadMeshes> {
  const json = parsed as LookedAt;
  const { resources, bufferBytes, buffer } = gltfFiles(parsed, beside, binary);
  const format = binary ? 'glb' : 'gltf';
  const fail = (rule: string): never => {
    throw new CoreError('GLB_UNREADABLE', `${format}: ${rule}`);
  };
  checkClaims(parsed, binary && bufferBytes.length === 0 ? [binary.length] : bufferBytes, fail);
  checkSparse(parsed, buffer, fail);
  checkTrees(json.nodes, fail);
  const used = [...new Set([...namesOf(json.extensionsUsed), ...namesOf(json.extensionsRequired)])];
  const missing = namesOf(json.extensionsRequired).filter((name) => !isReadExtension(name));
  if (missing.length > 0) fail(`it needs ${missing.join(', ')}, which is not read; export it without`);
  try {
    if (binary && binary.length > 0) resources[GLB_BUFFER] = ownView(binary);
    const io = await glbIo(used, decoders);
    io.setLogger(new Logger(Verbosity.SILENT));
    return meshesOf(await io.readJSON({ json: json as GLTF.IGLTF, resources }), used, ownersOf);
  } catch (cause) {
    if (cause instanceof CoreError) throw cause;
    throw new CoreError('GLB_UNREADABLE', `${format}: ${errorText(cause)}`, {}, { cause });
  }
}

/** The same bytes, not copied where they need not be: what stands in them is copied out. */
function ownView(bytes: Uint8Array): Uint8Array<ArrayBuffer> {
  const { buffer, byteOffset, byteLength } = bytes;
  return buffer instanceof ArrayBuffer ? new Uint8Array(buffer, byteOffset, byteLength) : new Uint8Array(bytes);
}

/** @param used names of the file's extensions */
function meshesOf(document: Document, used: readonly string[], ownersOf: OwnersOf): ReadMeshes {
  const root = document.getRoot();
  const faults: ImportFault[] = [];
  const note = (where: string, message: string): void => void faults.push({ severity: 'note', where, message });
  soundRotations(document, (node, message) => void faults.push({ severity: 'warning', where: node, message }));
  const frames = sceneFrames(document);
  for (const message of leftOut(document, used, frames)) note('file', message);
  const textures = root.listTextures();
  const materials = root.listMaterials();
  const known = textures.map((texture, i) => readTexture(texture, `texture ${texture.getName() || i + 1}`, faults));
  const kept = known.flatMap((texture) => texture ?? []);
  const numberOf = new Map(
    textures.flatMap((texture, i) => (known[i] ? [[texture, kept.indexOf(known[i])] as const] : [])),
  );
  const pieces = meshUsers(document, frames, ownersOf, note).map(([mesh, nodes], i) =>
    readMesh(mesh, nodes, i, { materials, frames, note }),
  );
  return {
    meshes: {
      pieces,
      materials: materials.map((material) => readMaterial(material, numberOf, faults)),
      textures: kept,
    },
    faults,
  };
}

/** What the meshes of a file are read with. */
interface MeshReading {
  readonly materials: readonly Material[];
  readonly frames: ReadonlyMap<Node, Matrix>;
  readonly note: (where: string, message: string) => void;
}

function readMesh(
  mesh: Mesh,
  nodes: readonly Node[],
  index: number,
  { materials, frames, note }: MeshReading,
): MeshOfPiece {
  const node = nodes.at(0);
  const name = node?.getName() || mesh.getName() || `piece ${index + 1}`;
  const uses = nodes.reduce((sum, one) => sum + instancesOf(one), 0);
  if (uses > 1) note(name, `is used ${uses} times in the file and is imported once; place it in Layout`);
  const skin = node?.getSkin();
  // A skin's joints stand in the scene by themselves: their mesh's node has no say.
  const frame = node && !skin ? frames.get(node) : undefined;
  const map = frame ? linear(frame) : IDENTITY;
  if (map.some((value, i) => Math.abs(value - IDENTITY[i]) > 1e-6))
    note(name, 'its rotation and scale are now applied to its vertices');
  const parts = mesh.listPrimitives().flatMap((primitive): MeshPart[] => {
    const indices = trianglesOf(primitive);
    if (!indices) {
      note(name, 'a part of points or lines is left out: only triangles are drawn');
      return [];
    }
    const targets = primitive.listTargets().length;
    if (targets > 0)
      note(
        name,
        `${counted(targets, 'morph target is', 'morph targets are')} left out: it comes in as it stands at rest`,
      );
    const shown = morphed(readAttributes(primitive), primitive, mesh, node);
    const material = primitive.getMaterial();
    const part: MeshPart = {
      material: material ? materials.indexOf(material) : null,
      attributes: skin ? skinned(shown, primitive, skin) : shown,
      indices,
    };
    const placed = placePart(part, map);
    return [node && frame && isQuantised(primitive) ? movePart(placed, ownPlace(node, frames)) : placed];
  });
  const from = node && frame && mesh.listPrimitives().some(isQuantised) ? node.getParentNode() : node;
  return { name, parts, ...(frame ? { at: placeOf(from ?? null, frames) } : {}) };
}

/** Upper left of a matrix by columns. */
function linear(m: Matrix): LinearMap {
  return [m[0], m[1], m[2], m[4], m[5], m[6], m[8], m[9], m[10]];
}

/** Whether positions are whole numbers: then the node that shows the mesh says where they begin. Source: KHR_mesh_quantization. */
function isQuantised(primitive: Primitive): boolean {
  return primitive.getAttribute('POSITION')?.getComponentType() !== Accessor.ComponentType.FLOAT;
}

/** Where a node stands from the one that it stands in, along the axes of the scene. */
function ownPlace(node: Node, frames: ReadonlyMap<Node, Matrix>): Vector3 {
  const [place, from] = [placeOf(node, frames), placeOf(node.getParentNode(), frames)];
  return [place[0] - from[0], place[1] - from[1], place[2] - from[2]];
}

/** How often a node shows its mesh. */
function instancesOf(node: Node): number {
  const instanced = node.getExtension<InstancedMesh>(EXTMeshGPUInstancing.EXTENSION_NAME);
  return instanced?.listAttributes().at(0)?.getCount() ?? 1;
}

/** What this reader itself looks at in a glTF's JSON. */
interface LookedAt {
  readonly extensionsUsed?: unknown;
  readonly extensionsRequired?: unknown;
  readonly nodes?: unknown;
}

function namesOf(value: unknown): string[] {
  return Array.isArray(value) ? value.filter((one): one is string => typeof one === 'string') : [];
}
