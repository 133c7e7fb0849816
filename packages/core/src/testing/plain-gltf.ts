/** What an independent reading of a GLB finds of a mesh: nothing of it comes from the reader that it is held against. */
export interface PlainMesh {
  /** With area or without. */
  readonly triangles: number;
  /** In the turn and scale of the first node that shows it, metres. */
  readonly min: readonly number[];
  readonly max: readonly number[];
  /** Names of the materials of its parts that are triangles. */
  readonly materials: readonly string[];
}

interface Accessor {
  readonly bufferView?: number;
  readonly byteOffset?: number;
  readonly componentType: number;
  readonly normalized?: boolean;
  readonly count: number;
  readonly type: string;
}

interface Part {
  readonly attributes: Readonly<Record<string, number>>;
  readonly indices?: number;
  readonly material?: number;
  readonly mode?: number;
}

interface Node {
  readonly mesh?: number;
  readonly skin?: number;
  readonly children?: readonly number[];
  readonly matrix?: readonly number[];
  readonly translation?: readonly number[];
  readonly rotation?: readonly number[];
  readonly scale?: readonly number[];
}

interface Gltf {
  readonly accessors: readonly Accessor[];
  readonly bufferViews: readonly { byteOffset?: number; byteStride?: number }[];
  readonly meshes: readonly { primitives: readonly Part[] }[];
  readonly materials?: readonly { name?: string }[];
  readonly nodes?: readonly Node[];
  readonly scenes?: readonly { nodes?: readonly number[] }[];
}

const SIZES: Readonly<Record<number, number>> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const MOST: Readonly<Record<number, number>> = { 5120: 127, 5121: 255, 5122: 32767, 5123: 65535 };
const NUMBERS: Readonly<Record<string, number>> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4 };

/** Meshes in the order of the nodes that show them first; packed, sparse and moving ones are none of its. */
export function plainMeshes(bytes: Uint8Array): PlainMesh[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const length = view.getUint32(12, true);
  const json = JSON.parse(new TextDecoder().decode(bytes.subarray(20, 20 + length))) as Gltf;
  const start = 28 + length;
  const read = (index: number): number[][] => {
    const { bufferView = -1, byteOffset = 0, componentType, normalized, count, type } = json.accessors[index];
    const { byteOffset: from = 0, byteStride } = json.bufferViews[bufferView];
    const [size, width] = [SIZES[componentType], NUMBERS[type]];
    return Array.from({ length: count }, (_unused, i) =>
      Array.from({ length: width }, (_none, k) => {
        const at = start + from + byteOffset + i * (byteStride ?? size * width) + k * size;
        const raw = numberAt(view, componentType, at);
        return normalized ? Math.max(raw / MOST[componentType], -1) : raw;
      }),
    );
  };
  const found = new Map<number, PlainMesh>();
  const worlds = worldsOf(json);
  for (const [i, { mesh }] of (json.nodes ?? []).entries()) {
    const world = worlds.get(i);
    if (mesh === undefined || !world || found.has(mesh)) continue;
    const min = [Infinity, Infinity, Infinity];
    const max = [-Infinity, -Infinity, -Infinity];
    let triangles = 0;
    const materials: string[] = [];
    for (const { attributes, indices, material, mode = 4 } of json.meshes[mesh].primitives) {
      if (mode < 4) continue;
      const corners = json.accessors[indices ?? attributes['POSITION']].count;
      triangles += mode === 4 ? corners / 3 : corners - 2;
      if (material !== undefined) materials.push(json.materials?.[material].name ?? '');
      for (const p of read(attributes['POSITION'])) {
        for (let k = 0; k < 3; k++) {
          const value = world[k] * p[0] + world[4 + k] * p[1] + world[8 + k] * p[2];
          min[k] = Math.min(min[k], value);
          max[k] = Math.max(max[k], value);
        }
      }
    }
    if (triangles > 0) found.set(mesh, { triangles, min, max, materials });
  }
  return [...found.values()];
}

function numberAt(view: DataView, componentType: number, at: number): number {
  if (componentType === 5120) return view.getInt8(at);
  if (componentType === 5121) return view.getUint8(at);
  if (componentType === 5122) return view.getInt16(at, true);
  if (componentType === 5123) return view.getUint16(at, true);
  return componentType === 5125 ? view.getUint32(at, true) : view.getFloat32(at, true);
}

/** World matrices of all nodes that a scene shows, by columns. */
function worldsOf({ nodes = [], scenes = [] }: Gltf): Map<number, number[]> {
  const worlds = new Map<number, number[]>();
  const go = (index: number, parent: readonly number[]): void => {
    const world = times(parent, localOf(nodes[index]));
    worlds.set(index, world);
    for (const child of nodes[index].children ?? []) go(child, world);
  };
  const unit = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
  for (const { nodes: roots = [] } of scenes) for (const root of roots) go(root, unit);
  return worlds;
}

function localOf({ matrix, translation = [0, 0, 0], rotation = [0, 0, 0, 1], scale = [1, 1, 1] }: Node): number[] {
  if (matrix) return [...matrix];
  const [x, y, z, w] = rotation;
  const turn = [
    [1 - 2 * (y * y + z * z), 2 * (x * y + z * w), 2 * (x * z - y * w)],
    [2 * (x * y - z * w), 1 - 2 * (x * x + z * z), 2 * (y * z + x * w)],
    [2 * (x * z + y * w), 2 * (y * z - x * w), 1 - 2 * (x * x + y * y)],
  ];
  return [...turn.flatMap((column, k) => [...column.map((value) => value * scale[k]), 0]), ...translation, 1];
}

function times(a: readonly number[], b: readonly number[]): number[] {
  return Array.from({ length: 16 }, (_unused, n) =>
    [0, 1, 2, 3].reduce((sum, k) => sum + a[k * 4 + (n % 4)] * b[Math.floor(n / 4) * 4 + k], 0),
  );
}
