import { openGlb, surfaceBytes } from '@stravel/core/pack-walk';

/** What is drawn of a node. */
export interface NodeFigures {
  readonly triangles: number;
  /** Draw calls: one a material. */
  readonly materials: number;
}

interface Primitive {
  readonly attributes: Readonly<Record<string, number>>;
  readonly indices?: number;
  readonly material?: number;
}

/** The parts of a GLB's JSON that are counted. */
interface GlbJson {
  readonly nodes?: readonly { readonly name?: string; readonly mesh?: number }[];
  readonly meshes?: readonly { readonly primitives: readonly Primitive[] }[];
  readonly accessors?: readonly {
    readonly count: number;
    readonly bufferView?: number;
    readonly byteOffset?: number;
    readonly componentType?: number;
  }[];
  readonly bufferViews?: readonly { readonly byteOffset?: number; readonly byteStride?: number }[];
  readonly materials?: readonly { readonly name?: string }[];
}

/** What the nodes of a GLB draw, by their names. @throws CoreError 'GLB_UNREADABLE' */
export function nodeFigures(glb: Uint8Array): ReadonlyMap<string, NodeFigures> {
  const { nodes = [], meshes = [], accessors = [] } = openGlb(glb).json as GlbJson;
  const figures = new Map<string, NodeFigures>();
  for (const { name = '', mesh } of nodes) {
    const primitives = mesh === undefined ? [] : (meshes[mesh]?.primitives ?? []);
    const corners = primitives.reduce(
      (sum, { indices, attributes }) => sum + (accessors[indices ?? attributes['POSITION']]?.count ?? 0),
      0,
    );
    figures.set(name, { triangles: corners / 3, materials: primitives.length });
  }
  return figures;
}

/** The GLB of a chunk's blocks. */
export interface BlockFigures {
  readonly memoryBytes: number;
  /** Name of the material of each primitive. */
  readonly materials: readonly string[];
  /** Bounds of what some indices of a primitive draw: least x, y, z, then greatest. */
  readonly boundsOf: (primitive: number, firstIndex: number, indexCount: number) => number[];
}

/** @throws CoreError 'GLB_UNREADABLE' */
export function blockFigures(glb: Uint8Array): BlockFigures {
  const { json, binary } = openGlb(glb);
  const { meshes = [], accessors = [], bufferViews = [], materials = [] } = json as GlbJson;
  const primitives = meshes.flatMap((mesh) => mesh.primitives);
  const view = new DataView(binary.buffer, binary.byteOffset, binary.byteLength);
  const startOf = (accessor: number): number => {
    const { bufferView = 0, byteOffset = 0 } = accessors[accessor];
    return (bufferViews[bufferView]?.byteOffset ?? 0) + byteOffset;
  };
  let memoryBytes = 0;
  for (const { attributes, indices } of primitives) {
    const triangles = (indices === undefined ? 0 : accessors[indices].count) / 3;
    memoryBytes += surfaceBytes(accessors[attributes['POSITION']].count, triangles);
  }
  return {
    memoryBytes,
    materials: primitives.map(({ material }) => (material === undefined ? '' : (materials[material]?.name ?? ''))),
    boundsOf: (primitive, firstIndex, indexCount) => {
      const { attributes, indices = 0 } = primitives[primitive];
      const [positions, from] = [startOf(attributes['POSITION']), startOf(indices)];
      const stride = bufferViews[accessors[attributes['POSITION']].bufferView ?? 0]?.byteStride ?? 12;
      const isShort = accessors[indices].componentType === 5123;
      const box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
      for (let i = firstIndex; i < firstIndex + indexCount; i++) {
        const corner = isShort ? view.getUint16(from + i * 2, true) : view.getUint32(from + i * 4, true);
        for (let k = 0; k < 3; k++) {
          const value = view.getFloat32(positions + corner * stride + k * 4, true);
          box[k] = Math.min(box[k], value);
          box[3 + k] = Math.max(box[3 + k], value);
        }
      }
      return box;
    },
  };
}
