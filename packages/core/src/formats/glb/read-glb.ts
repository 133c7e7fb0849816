import { Accessor, type Material, type Mesh, type Node, type Primitive } from '@gltf-transform/core';
import { EXTMeshGPUInstancing, type InstancedMesh } from '@gltf-transform/extensions';
import { linearOf, type Matrix } from '../../geometry/matrix';
import type { KitMeshes, MeshOfPiece, MeshPart } from '../../mesh/kit-meshes';
import { IDENTITY, movePart, placePart } from '../../mesh/place-part';
import type { Vector3 } from '../../model/vector';
import type { FindBeside } from '../files-beside';
import type { ImportFault } from '../import-report';
import { leftOut } from './left-out';
import type { MeshDecoders } from './mesh-decoders';
import { meshUsers, type OwnersOf } from './mesh-users';
import { openDocument, type OpenDocument } from './open-document';
import { readLooks } from './read-material';
import { readPrimitive } from './read-primitive';
import { placeOf, sceneFrames } from './scene-frames';
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
export async function readGlb(
  bytes: Uint8Array,
  beside: FindBeside = () => undefined,
  decoders: MeshDecoders = {},
  ownersOf: OwnersOf = NO_OWNERS,
): Promise<ReadMeshes> {
  return meshesOf(await openDocument('glb', bytes, beside, decoders), ownersOf);
}

/** Reads a glTF as JSON; otherwise as `readGlb`. @throws CoreError 'JSON_UNREADABLE', and as `readGlb` */
export async function readGltf(
  bytes: Uint8Array,
  beside: FindBeside,
  decoders: MeshDecoders = {},
  ownersOf: OwnersOf = NO_OWNERS,
): Promise<ReadMeshes> {
  return meshesOf(await openDocument('gltf', bytes, beside, decoders), ownersOf);
}

function meshesOf({ document, used }: OpenDocument, ownersOf: OwnersOf): ReadMeshes {
  const faults: ImportFault[] = [];
  const note = (where: string, message: string): void => void faults.push({ severity: 'note', where, message });
  soundRotations(document, (node, message) => void faults.push({ severity: 'warning', where: node, message }));
  const frames = sceneFrames(document);
  for (const message of leftOut(document, used, frames)) note('file', message);
  const looks = readLooks(document, faults);
  const materials = document.getRoot().listMaterials();
  const pieces = meshUsers(document, frames, ownersOf, note).map(([mesh, nodes], i) =>
    readMesh(mesh, nodes, i, { materials, frames, note }),
  );
  return { meshes: { pieces, ...looks }, faults };
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
  const map = frame ? linearOf(frame) : IDENTITY;
  if (map.some((value, i) => Math.abs(value - IDENTITY[i]) > 1e-6))
    note(name, 'its rotation and scale are now applied to its vertices');
  const parts = mesh.listPrimitives().flatMap((primitive): MeshPart[] => {
    const part = readPrimitive(primitive, { mesh, node, materials, note: (message) => note(name, message) });
    if (!part) return [];
    const placed = placePart(part, map);
    return [node && frame && isQuantised(primitive) ? movePart(placed, ownPlace(node, frames)) : placed];
  });
  const from = node && frame && mesh.listPrimitives().some(isQuantised) ? node.getParentNode() : node;
  return { name, parts, ...(frame ? { at: placeOf(from ?? null, frames) } : {}) };
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
