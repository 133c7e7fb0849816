import { meshNodes } from '../formats/glb/glb-node-names';
import { asTables } from '../formats/glb/open-glb';
import { isJsonTable } from '../model/json';

type Table = Readonly<Record<string, unknown>>;

/** How a texture lies on a mesh. */
interface TextureUse {
  /** Number of the set of texture coordinates. */
  readonly set: number;
  /** Factors of KHR_texture_transform along u and v. */
  readonly scale: readonly [number, number];
}

/** Component types of texture coordinates: bytes of one, and what 1 is stored as. */
const COMPONENTS: ReadonlyMap<unknown, { readonly bytes: number; readonly one: number }> = new Map([
  [5121, { bytes: 1, one: 255 }],
  [5123, { bytes: 2, one: 65535 }],
  [5126, { bytes: 4, one: 1 }],
]);

/**
 * How often a texture repeats at most over the mesh of each named node, along u or v; meshes without a texture are left out.
 * @param json of a GLB that `openGlb` has checked
 */
export function textureRepeats(json: object, binary: Uint8Array): Map<string, number> {
  const gltf = json as Table;
  const view = new DataView(binary.buffer, binary.byteOffset, binary.byteLength);
  const spans = new Map<number, readonly [number, number]>();
  const spanOf = (accessor: number): readonly [number, number] => {
    const known = spans.get(accessor) ?? coordinateSpan(gltf, accessor, view);
    spans.set(accessor, known);
    return known;
  };
  const repeats = new Map<string, number>();
  for (const { name, node } of meshNodes(json)) {
    for (const primitive of asTables(asTables(gltf['meshes'])[Number(node['mesh'])]?.['primitives'])) {
      const attributes = isJsonTable(primitive['attributes']) ? primitive['attributes'] : {};
      for (const { set, scale } of texturesOf(asTables(gltf['materials'])[Number(primitive['material'] ?? NaN)])) {
        const accessor = attributes[`TEXCOORD_${set}`];
        if (typeof accessor !== 'number') continue;
        const span = spanOf(accessor);
        const most = Math.max(...span.map((reach, k) => reach * Math.abs(scale[k])));
        repeats.set(name, Math.max(most, repeats.get(name) ?? 0));
      }
    }
  }
  return repeats;
}

/** The textures of a material, those of its extensions too. */
function texturesOf(material: Table | undefined): TextureUse[] {
  return Object.entries(material ?? {}).flatMap(([key, value]): TextureUse[] => {
    if (!isJsonTable(value)) return [];
    if (!key.endsWith('Texture') || typeof value['index'] !== 'number') return texturesOf(value);
    const extensions = isJsonTable(value['extensions']) ? value['extensions'] : {};
    const transform = extensions['KHR_texture_transform'];
    const moved: Table = isJsonTable(transform) ? transform : {};
    const factors = Array.isArray(moved['scale']) ? (moved['scale'] as unknown[]) : [1, 1];
    return [
      { set: Number(moved['texCoord'] ?? value['texCoord'] ?? 0), scale: [Number(factors[0]), Number(factors[1])] },
    ];
  });
}

/** How far the coordinates of a set reach, along u and v; 0 where they are not as glTF has them. */
function coordinateSpan(gltf: Table, index: number, view: DataView): readonly [number, number] {
  const accessor = asTables(gltf['accessors'])[index];
  const place = asTables(gltf['bufferViews'])[Number(accessor?.['bufferView'] ?? NaN)];
  const component = COMPONENTS.get(accessor?.['componentType']);
  if (!accessor || !place || !component || accessor['type'] !== 'VEC2') return [0, 0];
  const { bytes, one } = component;
  const start = Number(place['byteOffset'] ?? 0) + Number(accessor['byteOffset'] ?? 0);
  const stride = Number(place['byteStride'] ?? 2 * bytes);
  const least = [Infinity, Infinity];
  const greatest = [-Infinity, -Infinity];
  for (let i = 0; i < Number(accessor['count']); i++) {
    for (let k = 0; k < 2; k++) {
      const value = numberAt(view, start + i * stride + k * bytes, bytes) / one;
      if (value < least[k]) least[k] = value;
      if (value > greatest[k]) greatest[k] = value;
    }
  }
  const span = (k: 0 | 1): number => Math.max(0, greatest[k] - least[k]);
  return [span(0), span(1)];
}

function numberAt(view: DataView, at: number, bytes: number): number {
  if (bytes === 4) return view.getFloat32(at, true);
  return bytes === 2 ? view.getUint16(at, true) : view.getUint8(at);
}
