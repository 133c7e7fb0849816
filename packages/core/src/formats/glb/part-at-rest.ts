import type { Mesh, Node, Primitive, PrimitiveTarget, Skin } from '@gltf-transform/core';
import type { MeshAttribute } from '../../mesh/kit-meshes';
import { floatsOf } from './read-part';
import { product, type Matrix } from '../../geometry/matrix';

/** Attributes with the morph targets added that the file shows from the beginning. Source: glTF 2.0, section 3.7.2.2. */
export function morphed(
  attributes: readonly MeshAttribute[],
  primitive: Primitive,
  mesh: Mesh,
  node: Node | undefined,
): MeshAttribute[] {
  const weights = node && node.getWeights().length > 0 ? node.getWeights() : mesh.getWeights();
  const shown = primitive
    .listTargets()
    .map((target, i): [PrimitiveTarget, number] => [target, weights[i] ?? 0])
    .filter(([, weight]) => weight !== 0);
  if (shown.length === 0) return [...attributes];
  return attributes.map((attribute) => {
    const values = attribute.values.slice();
    for (const [target, weight] of shown) {
      const moved = target.getAttribute(attribute.semantic);
      if (!moved) continue;
      const by = floatsOf(moved);
      // Tangents move without their fourth number.
      const size = moved.getElementSize();
      for (let i = 0; i < by.length / size && i < values.length / attribute.size; i++)
        for (let k = 0; k < Math.min(size, attribute.size); k++)
          values[i * attribute.size + k] += weight * by[i * size + k];
    }
    return { ...attribute, values };
  });
}

/**
 * Attributes as the joints of a skin hold them at rest, in the frame of the scene; the same where the skin says nothing that can be
 * followed. Source: glTF 2.0, section 3.7.3.
 */
export function skinned(attributes: readonly MeshAttribute[], primitive: Primitive, skin: Skin): MeshAttribute[] {
  const joints = jointMatrices(skin);
  const [of, by] = [listed(primitive, 'JOINTS'), listed(primitive, 'WEIGHTS')];
  const vertices = (attributes.at(0)?.values.length ?? 0) / 3;
  const isWhole =
    of.length > 0 &&
    of.length === by.length &&
    [...of, ...by].every((values) => values.length >= vertices * 4) &&
    of.every((values) => values.every((joint) => joint < joints.length));
  if (!isWhole) return [...attributes];
  const moved = attributes.map((attribute) => ({ ...attribute, values: attribute.values.slice() }));
  for (let vertex = 0; vertex < vertices; vertex++) {
    const m = new Float64Array(16);
    let sum = 0;
    of.forEach((numbers, set) => {
      for (let k = 0; k < 4; k++) {
        const weight = by[set][vertex * 4 + k];
        if (weight === 0) continue;
        sum += weight;
        const joint = joints[numbers[vertex * 4 + k]];
        for (let n = 0; n < 16; n++) m[n] += weight * joint[n];
      }
    });
    // A vertex that no joint holds stays.
    if (!(sum > 0)) continue;
    for (const { semantic, size, values } of moved) {
      const isPlace = semantic === 'POSITION';
      if (!isPlace && semantic !== 'NORMAL' && semantic !== 'TANGENT') continue;
      const at = vertex * size;
      const [x, y, z] = [values[at], values[at + 1], values[at + 2]];
      const p = [0, 1, 2].map((k) => (m[k] * x + m[4 + k] * y + m[8 + k] * z + (isPlace ? m[12 + k] : 0)) / sum);
      const length = isPlace ? 1 : Math.sqrt(p[0] * p[0] + p[1] * p[1] + p[2] * p[2]) || 1;
      for (let k = 0; k < 3; k++) values[at + k] = p[k] / length;
    }
  }
  return moved;
}

/** From the mesh's frame to where each joint stands in the scene. */
function jointMatrices(skin: Skin): Matrix[] {
  const inverse = skin.getInverseBindMatrices();
  return skin.listJoints().map((joint, i) => {
    const world: Matrix = joint.getWorldMatrix();
    if (!inverse || i >= inverse.getCount()) return world;
    return product(world, inverse.getElement(i, []));
  });
}

/** The attributes JOINTS_0, JOINTS_1 and on. */
function listed(primitive: Primitive, what: 'JOINTS' | 'WEIGHTS'): Float32Array[] {
  const found: Float32Array[] = [];
  for (let set = 0; ; set++) {
    const accessor = primitive.getAttribute(`${what}_${set}`);
    if (!accessor || accessor.getElementSize() !== 4) return found;
    found.push(floatsOf(accessor));
  }
}
