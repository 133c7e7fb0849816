import type { Document, Mesh, Node } from '@gltf-transform/core';
import { EXTMeshGPUInstancing, KHRLightsPunctual, type InstancedMesh } from '@gltf-transform/extensions';
import { linearOf, matrixOf, product, UNIT_MATRIX, type Matrix } from '../../geometry/matrix';
import type { KitMeshes, MeshOfPiece } from '../../mesh/kit-meshes';
import type { FindBeside } from '../files-beside';
import type { ImportFault } from '../import-report';
import { isReadExtension } from './glb-io';
import type { MeshDecoders } from './mesh-decoders';
import { openDocument, type GltfForm } from './open-document';
import { readLooks } from './read-material';
import { readPrimitive } from './read-primitive';
import { floatsOf } from './read-part';
import { sceneFrames } from './scene-frames';
import { soundRotations } from './sound-rotations';

/** What stands in a node besides a mesh. */
export type SceneRole = 'empty' | 'light' | 'camera';

/** A node of a scene. */
export interface SceneNode {
  /** As in the file; may be ''. */
  readonly name: string;
  /** Names from the top, parted by '/'; a number behind one that its neighbours have too. It names the node from version to version. */
  readonly path: string;
  /** Number of the node that it hangs in; -1 at the top. Comes before it. */
  readonly parent: number;
  readonly hasChildren: boolean;
  /** In the scene, units of the file. */
  readonly matrix: Matrix;
  /** Number among the meshes; -1 for none. */
  readonly mesh: number;
  readonly role: SceneRole;
}

/** A scene as its file has it: meshes in frames of their own, and where they stand. */
export interface SceneFile {
  readonly meshes: KitMeshes;
  /** Parents first, in the order of the file. */
  readonly nodes: readonly SceneNode[];
  readonly faults: readonly ImportFault[];
}

/** Most nodes of a scene, instances included. */
export const MAX_SCENE_NODES = 400000;

/**
 * Reads the scene of a glTF; all of them where it has more than one. A mesh that several nodes show is read once. What a skin holds comes in at rest, in the frame
 * of the scene, and stands there once. Instances (EXT_mesh_gpu_instancing) are nodes below theirs.
 * @throws CoreError as `openDocument`
 */
export async function readScene(
  form: GltfForm,
  bytes: Uint8Array,
  beside: FindBeside,
  decoders: MeshDecoders,
): Promise<SceneFile> {
  const { document, used } = await openDocument(form, bytes, beside, decoders);
  const faults: ImportFault[] = [];
  soundRotations(document, (where, message) => void faults.push({ severity: 'warning', where, message }));
  const looks = readLooks(document, faults);
  const reading = new SceneReading(document, faults);
  reading.read();
  for (const name of used)
    if (!isReadExtension(name))
      faults.push({ severity: 'note', where: 'file', message: `the extension ${name} is left out` });
  return { meshes: { pieces: reading.pieces, ...looks }, nodes: reading.nodes, faults };
}

class SceneReading {
  readonly nodes: SceneNode[] = [];
  readonly pieces: MeshOfPiece[] = [];
  /** Numbers of meshes that were read, by the mesh and what changes it beside its node. */
  private readonly known = new Map<Mesh, number>();
  /** How often a path was given away. */
  private readonly paths = new Map<string, number>();

  constructor(
    private readonly document: Document,
    private readonly faults: ImportFault[],
  ) {}

  read(): void {
    const frames = sceneFrames(this.document);
    const root = this.document.getRoot();
    const tops = root.listScenes().flatMap((scene) => scene.listChildren());
    const roots = tops.length > 0 ? tops : root.listNodes().filter((node) => node.getParentNode() === null);
    const seen = new Set<Node>();
    // Without recursion: files have chains of many thousand.
    const open = [...roots].reverse().map((node): [Node, number] => [node, -1]);
    for (let next = open.pop(); next && this.nodes.length < MAX_SCENE_NODES; next = open.pop()) {
      const [node, parent] = next;
      const frame = frames.get(node);
      if (!frame || seen.has(node)) continue;
      seen.add(node);
      const number = this.add(node, parent, frame);
      for (const child of [...node.listChildren()].reverse()) open.push([child, number]);
    }
    if (open.length > 0)
      this.faults.push({
        severity: 'error',
        where: 'file',
        message: `has more than ${MAX_SCENE_NODES} nodes; the rest is left out`,
      });
  }

  private add(node: Node, parent: number, frame: Matrix): number {
    const mesh = node.getMesh();
    const instances = mesh ? instancesOf(node) : undefined;
    const name = node.getName();
    const path = this.pathOf(name || mesh?.getName() || 'node', parent);
    const role = node.getCamera()
      ? 'camera'
      : node.getExtension(KHRLightsPunctual.EXTENSION_NAME)
        ? 'light'
        : ('empty' as const);
    const hasChildren = node.listChildren().length > 0 || instances !== undefined;
    const isSkinned = node.getSkin() !== null;
    const shown = mesh && !instances ? this.meshOf(mesh, node, isSkinned) : -1;
    // A skin's joints stand in the scene by themselves: their mesh's node has no say.
    const matrix = isSkinned ? UNIT_MATRIX : frame;
    const number = this.nodes.push({ name, path, parent, hasChildren, matrix, mesh: shown, role }) - 1;
    if (!mesh || !instances) return number;
    const of = this.meshOf(mesh, node, false);
    instances.slice(0, MAX_SCENE_NODES - this.nodes.length).forEach((own, i) =>
      this.nodes.push({
        name: '',
        path: `${path}/${i + 1}`,
        parent: number,
        hasChildren: false,
        matrix: product(frame, own),
        mesh: of,
        role: 'empty',
      }),
    );
    return number;
  }

  private pathOf(name: string, parent: number): string {
    const plain = name.replaceAll('/', '∕');
    const path = parent < 0 ? plain : `${this.nodes[parent].path}/${plain}`;
    const count = (this.paths.get(path) ?? 0) + 1;
    this.paths.set(path, count);
    return count === 1 ? path : `${path}#${count}`;
  }

  /** @param isOwn whether its node changes it, so that it is read for that alone */
  private meshOf(mesh: Mesh, node: Node, isOwn: boolean): number {
    const isAlone = isOwn || node.getWeights().length > 0;
    const known = isAlone ? undefined : this.known.get(mesh);
    if (known !== undefined) return known;
    const name = mesh.getName() || node.getName() || `mesh ${this.pieces.length + 1}`;
    const materials = this.document.getRoot().listMaterials();
    const note = (message: string): void => void this.faults.push({ severity: 'note', where: name, message });
    const parts = mesh
      .listPrimitives()
      .flatMap((primitive) => readPrimitive(primitive, { mesh, node, materials, note }) ?? []);
    const number = this.pieces.push({ name, parts }) - 1;
    if (!isAlone) this.known.set(mesh, number);
    return number;
  }
}

/** Where the instances of a node stand in it; undefined where it has none. Source: EXT_mesh_gpu_instancing. */
function instancesOf(node: Node): Matrix[] | undefined {
  const instanced = node.getExtension<InstancedMesh>(EXTMeshGPUInstancing.EXTENSION_NAME);
  if (!instanced) return undefined;
  const [moves, turns, scales] = ['TRANSLATION', 'ROTATION', 'SCALE'].map((semantic) => {
    const accessor = instanced.getAttribute(semantic);
    return accessor && floatsOf(accessor);
  });
  const count = instanced.listAttributes().at(0)?.getCount() ?? 0;
  return Array.from({ length: count }, (_one, i) => {
    const [x, y, z] = moves ? moves.subarray(i * 3, i * 3 + 3) : [0, 0, 0];
    const scale = scales ? scales.subarray(i * 3, i * 3 + 3) : [1, 1, 1];
    const turn = turns ? turnOf(turns.subarray(i * 4, i * 4 + 4)) : linearOf(UNIT_MATRIX);
    return matrixOf(turn.map((value, k) => value * scale[Math.floor(k / 3)]) as unknown as typeof turn, [x, y, z]);
  });
}

/** The turn of a quaternion, made of length 1; none for one without length. */
function turnOf(quaternion: ArrayLike<number>): ReturnType<typeof linearOf> {
  const length = Math.sqrt([0, 1, 2, 3].reduce((sum, k) => sum + quaternion[k] * quaternion[k], 0));
  if (!(length > 0)) return linearOf(UNIT_MATRIX);
  const [x, y, z, w] = [0, 1, 2, 3].map((k) => quaternion[k] / length);
  return [
    1 - 2 * (y * y + z * z),
    2 * (x * y + z * w),
    2 * (x * z - y * w),
    2 * (x * y - z * w),
    1 - 2 * (x * x + z * z),
    2 * (y * z + x * w),
    2 * (x * z + y * w),
    2 * (y * z - x * w),
    1 - 2 * (x * x + y * y),
  ];
}
