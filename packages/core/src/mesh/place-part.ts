import type { LinearMap } from '../geometry/matrix';
import type { Vector3 } from '../model/vector';
import type { MeshPart } from './kit-meshes';

export const IDENTITY: LinearMap = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** Turns, scales and mirrors a part in place of its node; a mirrored one keeps its outside out. */
export function placePart(part: MeshPart, map: LinearMap): MeshPart {
  if (map.every((value, i) => value === IDENTITY[i])) return part;
  const cofactors = cofactorsOf(map);
  const determinant = map[0] * cofactors[0] + map[1] * cofactors[1] + map[2] * cofactors[2];
  const attributes = part.attributes.map((attribute) => {
    const { semantic, size, values } = attribute;
    if (semantic === 'POSITION') return { ...attribute, values: mapped(values, size, map, false) };
    // Normals go by the inverse transposed: the cofactors, turned about with a mirror.
    if (semantic === 'NORMAL')
      return { ...attribute, values: mapped(values, size, determinant < 0 ? negated(cofactors) : cofactors, true) };
    if (semantic === 'TANGENT') return { ...attribute, values: mapped(values, size, map, true) };
    return attribute;
  });
  const indices = part.indices.slice();
  if (determinant < 0)
    for (let i = 0; i < indices.length; i += 3) [indices[i], indices[i + 2]] = [indices[i + 2], indices[i]];
  return { ...part, attributes, indices };
}

/** Moves a part. */
export function movePart(part: MeshPart, by: Vector3): MeshPart {
  const attributes = part.attributes.map((attribute) =>
    attribute.semantic === 'POSITION'
      ? { ...attribute, values: attribute.values.map((value, i) => value + by[i % 3]) }
      : attribute,
  );
  return { ...part, attributes };
}

function mapped(values: Float32Array, size: number, map: LinearMap, toLengthOne: boolean): Float32Array {
  const out = values.slice();
  for (let i = 0; i < values.length; i += size) {
    const [x, y, z] = [values[i], values[i + 1], values[i + 2]];
    const p = [0, 1, 2].map((k) => map[k] * x + map[3 + k] * y + map[6 + k] * z);
    const length = toLengthOne ? Math.sqrt(p[0] * p[0] + p[1] * p[1] + p[2] * p[2]) || 1 : 1;
    for (let k = 0; k < 3; k++) out[i + k] = p[k] / length;
  }
  return out;
}

/** Cofactors by column: for a map with columns a, b, c these are b×c, c×a, a×b. */
function cofactorsOf(m: LinearMap): LinearMap {
  const cross = (u: number, v: number): [number, number, number] => [
    m[u + 1] * m[v + 2] - m[u + 2] * m[v + 1],
    m[u + 2] * m[v] - m[u] * m[v + 2],
    m[u] * m[v + 1] - m[u + 1] * m[v],
  ];
  return [...cross(3, 6), ...cross(6, 0), ...cross(0, 3)];
}

function negated(m: LinearMap): LinearMap {
  return m.map((value) => -value) as unknown as LinearMap;
}
