import type { Material, Mesh, Node, Primitive } from '@gltf-transform/core';
import { counted } from '../../counted';
import type { MeshPart } from '../../mesh/kit-meshes';
import { morphed, skinned } from './part-at-rest';
import { readAttributes, trianglesOf } from './read-part';

/** What a part of a mesh is read with. */
export interface PrimitiveReading {
  readonly mesh: Mesh;
  /** That shows it: its weights and its skin count. */
  readonly node: Node | undefined;
  readonly materials: readonly Material[];
  readonly note: (message: string) => void;
}

/** A part of a mesh in the mesh's own frame, at rest; in that of the scene where a skin holds it. Undefined for points and lines, which are told. */
export function readPrimitive(
  primitive: Primitive,
  { mesh, node, materials, note }: PrimitiveReading,
): MeshPart | undefined {
  const indices = trianglesOf(primitive);
  if (!indices) {
    note('a part of points or lines is left out: only triangles are drawn');
    return undefined;
  }
  const targets = primitive.listTargets().length;
  if (targets > 0)
    note(`${counted(targets, 'morph target is', 'morph targets are')} left out: it comes in as it stands at rest`);
  const shown = morphed(readAttributes(primitive), primitive, mesh, node);
  const material = primitive.getMaterial();
  const skin = node?.getSkin();
  return {
    material: material ? materials.indexOf(material) : null,
    attributes: skin ? skinned(shown, primitive, skin) : shown,
    indices,
  };
}
