import { positionsOf, type MeshPart } from '../../mesh/kit-meshes';

/** Triangles of some parts over vertices that each stand once. */
export interface WeldedSurface {
  readonly positions: Float32Array;
  readonly indices: Uint32Array;
  /** Where the indices of each part begin; one more at the end. */
  readonly starts: readonly number[];
}

/** The triangles of parts as bodies meet them: vertices at one place, which differ in how they are drawn, are one. */
export function weldedSurface(parts: readonly MeshPart[]): WeldedSurface {
  const indices = new Uint32Array(parts.reduce((sum, part) => sum + part.indices.length, 0));
  const places: number[] = [];
  const numberOf = new Map<string, number>();
  const starts = [0];
  let at = 0;
  for (const part of parts) {
    const positions = positionsOf(part);
    const numbers = new Int32Array(positions.length / 3).fill(-1);
    for (const vertex of part.indices) {
      if (numbers[vertex] < 0) {
        // −0 and 0 are one place.
        const [x, y, z] = [0, 1, 2].map((k) => positions[vertex * 3 + k] + 0);
        const key = `${x} ${y} ${z}`;
        let number = numberOf.get(key);
        if (number === undefined) {
          number = numberOf.size;
          numberOf.set(key, number);
          places.push(x, y, z);
        }
        numbers[vertex] = number;
      }
      indices[at++] = numbers[vertex];
    }
    starts.push(at);
  }
  return { positions: Float32Array.from(places), indices, starts };
}

/** Triangles as a part that is never drawn: positions alone, without a material. */
export function solidPart({ positions, indices }: Pick<WeldedSurface, 'positions' | 'indices'>): MeshPart {
  return { material: null, attributes: [{ semantic: 'POSITION', size: 3, values: positions }], indices };
}
