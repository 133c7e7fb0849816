import { Primitive, type Accessor } from '@gltf-transform/core';
import type { MeshAttribute } from '../../mesh/kit-meshes';

/** Attributes of skins: they are read with the skin. */
const SKIN = /^(JOINTS|WEIGHTS)_/;

/** Attributes of a primitive, positions first; without those of skins and those of programs' own. */
export function readAttributes(primitive: Primitive): MeshAttribute[] {
  const semantics = primitive.listSemantics().filter((semantic) => !SKIN.test(semantic) && !semantic.startsWith('_'));
  const order = [...semantics].sort((a, b) => rank(a) - rank(b) || (a < b ? -1 : 1));
  return order.map((semantic) => {
    const accessor = primitive.getAttribute(semantic) as Accessor;
    return { semantic, size: accessor.getElementSize(), values: floatsOf(accessor) };
  });
}

function rank(semantic: string): number {
  return semantic === 'POSITION' ? 0 : semantic === 'NORMAL' ? 1 : 2;
}

/** The numbers of an accessor, 0 to 1 or −1 to 1 where whole ones stand for that. */
export function floatsOf(accessor: Accessor): Float32Array {
  const array = numbersOf(accessor);
  if (array instanceof Float32Array) return array;
  const size = accessor.getElementSize();
  const values = new Float32Array(accessor.getCount() * size);
  const element: number[] = [];
  for (let i = 0; i < accessor.getCount(); i++) values.set(accessor.getElement(i, element), i * size);
  return values;
}

/** The array behind an accessor; its library's own type for it is a global that only some compilers know. */
function numbersOf(accessor: Accessor): ArrayLike<number> | null {
  return accessor.getArray() as ArrayLike<number> | null;
}

/**
 * Corners of a part's triangles, three each; undefined for points and lines. Triangles that only lead a strip on, with a corner
 * twice, are left out. Source: Khronos, glTF 2.0 specification, section 3.7.2.1.
 */
export function trianglesOf(primitive: Primitive): Uint32Array | undefined {
  const corners = readIndices(primitive);
  const mode = primitive.getMode();
  if (mode === Primitive.Mode.TRIANGLES) return corners;
  if (mode !== Primitive.Mode.TRIANGLE_STRIP && mode !== Primitive.Mode.TRIANGLE_FAN) return undefined;
  const triangles: number[] = [];
  for (let i = 0; i + 2 < corners.length; i++) {
    // Every second triangle of a strip is wound the other way about.
    const [a, b] = mode === Primitive.Mode.TRIANGLE_FAN ? [0, i + 1] : [i, i % 2 === 0 ? i + 1 : i + 2];
    const c = mode === Primitive.Mode.TRIANGLE_STRIP && i % 2 === 1 ? i + 1 : i + 2;
    const [p, q, r] = [corners[a], corners[b], corners[c]];
    if (p !== q && q !== r && r !== p) triangles.push(p, q, r);
  }
  return Uint32Array.from(triangles);
}

function readIndices(primitive: Primitive): Uint32Array {
  const indices = primitive.getIndices();
  const array = indices && numbersOf(indices);
  if (array) return Uint32Array.from(array);
  return Uint32Array.from({ length: primitive.getAttribute('POSITION')?.getCount() ?? 0 }, (_unused, i) => i);
}
