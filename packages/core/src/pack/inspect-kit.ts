import { meshNodes } from '../formats/glb/glb-node-names';
import { openGlb } from '../formats/glb/open-glb';
import { pictureSize } from '../formats/pictures/picture-size';
import { NUMBER_BYTES, textureBytes } from '../mesh/mesh-cost';
import { textureRepeats } from './texture-repeats';

/** What a target's rules ask of a kit's GLB. */
export interface KitInspection {
  /** Names of the nodes with a mesh. */
  readonly nodes: readonly string[];
  /** Those of them that are moved, turned or scaled, or hang below another node. */
  readonly movedNodes: readonly string[];
  readonly textures: readonly { readonly name: string; readonly widthPixels: number; readonly heightPixels: number }[];
  /** Textures whose picture is not in the file, or cannot be read. */
  readonly missingTextures: readonly string[];
  /** How often a texture repeats at most over the mesh of each node that has one. */
  readonly repeats: ReadonlyMap<string, number>;
  /** glTF extensions that it uses, by name. */
  readonly extensions: readonly string[];
  /** Vertices, indices and textures with mips of the whole file, each once, however many pieces share them. */
  readonly memoryBytes: number;
  readonly fileBytes: number;
}

/** The parts of a GLB's JSON that are looked at. */
interface GlbJson {
  readonly extensionsUsed?: readonly unknown[];
  readonly nodes?: readonly { readonly children?: readonly number[] }[];
  readonly images?: readonly {
    readonly name?: string;
    readonly uri?: string;
    readonly bufferView?: number;
    readonly mimeType?: string;
  }[];
  readonly bufferViews?: readonly { readonly byteOffset?: number; readonly byteLength: number }[];
  readonly meshes?: readonly {
    readonly primitives?: readonly {
      readonly attributes?: Readonly<Record<string, number>>;
      readonly indices?: number;
    }[];
  }[];
  readonly accessors?: readonly { readonly count: number; readonly type: string }[];
}

const PLACE_KEYS = ['matrix', 'translation', 'rotation', 'scale'];

/** @throws CoreError 'GLB_UNREADABLE' */
export function inspectKit(glb: Uint8Array): KitInspection {
  const { json: parsed, binary } = openGlb(glb);
  const json = parsed as GlbJson;
  const named = meshNodes(parsed);
  const children = new Set((json.nodes ?? []).flatMap(({ children: below }) => below ?? []));
  const movedNodes = named.filter(
    ({ node, index }) => children.has(index) || PLACE_KEYS.some((key) => node[key] !== undefined),
  );
  const textures: KitInspection['textures'][number][] = [];
  const missingTextures: string[] = [];
  (json.images ?? []).forEach(({ name, uri, bufferView, mimeType }, i) => {
    const label = name ?? uri ?? `picture ${i + 1}`;
    const place = bufferView === undefined ? undefined : json.bufferViews?.[bufferView];
    const size =
      place &&
      pictureSize(binary.subarray(place.byteOffset ?? 0, (place.byteOffset ?? 0) + place.byteLength), mimeType ?? '');
    if (size) textures.push({ name: label, widthPixels: size[0], heightPixels: size[1] });
    else missingTextures.push(label);
  });
  return {
    nodes: named.map(({ name }) => name),
    movedNodes: movedNodes.map(({ name }) => name),
    textures,
    missingTextures,
    repeats: textureRepeats(parsed, binary),
    extensions: (json.extensionsUsed ?? []).map(String).sort(),
    memoryBytes:
      geometryBytes(json) +
      textures.reduce((sum, { widthPixels, heightPixels }) => sum + textureBytes(widthPixels, heightPixels), 0),
    fileBytes: glb.length,
  };
}

const COMPONENTS: ReadonlyMap<string, number> = new Map([
  ['SCALAR', 1],
  ['VEC2', 2],
  ['VEC3', 3],
  ['VEC4', 4],
]);

/** Vertices and indices of all meshes, each list once. */
function geometryBytes({ meshes = [], accessors = [] }: GlbJson): number {
  const lists = new Set(
    meshes.flatMap(({ primitives = [] }) =>
      primitives.flatMap(({ attributes = {}, indices }) => [
        ...Object.values(attributes),
        ...(indices === undefined ? [] : [indices]),
      ]),
    ),
  );
  let bytes = 0;
  for (const list of lists) {
    const accessor = accessors.at(list);
    // Attributes and indices both take four bytes a number.
    if (accessor && Number.isSafeInteger(accessor.count))
      bytes += accessor.count * (COMPONENTS.get(accessor.type) ?? 1) * NUMBER_BYTES;
  }
  return bytes;
}
