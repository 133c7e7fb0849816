import type { MeshPart } from './kit-meshes';

/** What makes a part unusable, undefined when nothing does. Names the first bad number and its place. */
export function partFault({ attributes, indices }: MeshPart): string | undefined {
  const [position] = attributes;
  if (position?.semantic !== 'POSITION' || position.size !== 3) return 'has no positions';
  const vertices = position.values.length / 3;
  if (indices.length === 0) return 'has no triangles';
  if (indices.length % 3 !== 0) return `has ${indices.length} indices, must be three a triangle`;
  for (const { semantic, values, size } of attributes) {
    if (values.length !== vertices * size) return `has ${values.length / size} of ${semantic} for ${vertices} vertices`;
    const bad = values.findIndex((value) => !Number.isFinite(value));
    if (bad >= 0) return `${semantic} of vertex ${Math.floor(bad / size)} is ${values[bad]}, must be finite`;
  }
  const out = indices.findIndex((index) => index >= vertices);
  if (out >= 0) return `indices[${out}] is ${indices[out]}, must be below ${vertices}`;
  return undefined;
}
