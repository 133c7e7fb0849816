import { counted } from '../counted';
import { positionsOf, type MeshAttribute, type MeshMaterial, type MeshPart } from '../mesh/kit-meshes';
import { partFault } from '../mesh/mesh-faults';
import { smoothNormals } from '../mesh/mesh-normals';
import { soundTriangles } from '../mesh/sound-triangles';
import { usesOf } from '../mesh/texture-uses';

/** So far from 1 a normal's length may be. */
const LENGTH_TOLERANCE = 0.005;

/** Tells what was changed of a piece. */
type Told = (message: string) => void;

/** Triangles without area are drawn by nobody, and no distance can be measured to them. */
export function withArea(part: MeshPart, told: Told): MeshPart {
  if (partFault(part) !== undefined) return part;
  const indices = soundTriangles(positionsOf(part), part.indices, { once: false });
  const gone = (part.indices.length - indices.length) / 3;
  if (gone === 0) return part;
  told(`has ${counted(gone, 'triangle')} without area; ${gone === 1 ? 'it is' : 'they are'} left out`);
  return { ...part, indices };
}

/** Each vertex of a part has a normal of length 1. */
export function withNormals(part: MeshPart, told: Told): MeshPart {
  const smooth = (): MeshAttribute => ({
    semantic: 'NORMAL',
    size: 3,
    values: smoothNormals(positionsOf(part), part.indices),
  });
  const [position, ...rest] = part.attributes;
  const normals = rest.find(({ semantic }) => semantic === 'NORMAL');
  if (!normals) {
    told('has no normals; smooth normals were computed');
    return { ...part, attributes: [position, smooth(), ...rest] };
  }
  const sound = unitNormals(normals.values);
  if (sound === normals.values) return part;
  told(
    sound
      ? 'has normals that are not of length 1; they were scaled'
      : 'has normals without a direction; smooth normals were computed',
  );
  const instead = sound ? { ...normals, values: sound } : smooth();
  return { ...part, attributes: part.attributes.map((one) => (one === normals ? instead : one)) };
}

/** Normals of length 1: the same where they are, within what readers allow; undefined where one has no direction. */
function unitNormals(values: Float32Array): Float32Array | undefined {
  let scaled: Float32Array | undefined;
  for (let i = 0; i < values.length; i += 3) {
    const [x, y, z] = [values[i], values[i + 1], values[i + 2]];
    const length = Math.sqrt(x * x + y * y + z * z);
    if (!(length > 0)) return undefined;
    if (Math.abs(length - 1) <= LENGTH_TOLERANCE) continue;
    scaled ??= values.slice();
    for (let k = 0; k < 3; k++) scaled[i + k] = values[i + k] / length;
  }
  return scaled ?? values;
}

/**
 * A part has all sets of texture coordinates that its material looks up, and those before them, as the format asks. Of what it
 * lacks all are 0, as readers take it.
 */
export function withCoordinates(part: MeshPart, materials: readonly MeshMaterial[], told: Told): MeshPart {
  const uses = part.material === null ? [] : usesOf(materials[part.material]);
  const wanted = uses.map(({ coordinates }) => coordinates);
  const has = (set: number): boolean => part.attributes.some(({ semantic }) => semantic === `TEXCOORD_${set}`);
  const lacking = Array.from({ length: Math.max(-1, ...wanted) + 1 }, (_unused, set) => set).filter((set) => !has(set));
  if (lacking.length === 0) return part;
  if (wanted.some((set) => lacking.includes(set)))
    told('has no texture coordinates for the pictures of its material; the colour of their corner is used');
  const vertices = positionsOf(part).length / 3;
  return {
    ...part,
    attributes: [
      ...part.attributes,
      ...lacking.map((set): MeshAttribute => ({
        semantic: `TEXCOORD_${set}`,
        size: 2,
        values: new Float32Array(vertices * 2),
      })),
    ],
  };
}
