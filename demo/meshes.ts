import { cosDegrees, sinDegrees, type KitMesh } from '@stravel/core';

type Part = KitMesh['parts'][number];
type Material = Part['material'];

export const MATERIALS = {
  timber: { name: 'timber', colour: [0.42, 0.31, 0.2], roughness: 0.9 },
  iron: { name: 'iron', colour: [0.24, 0.26, 0.27], roughness: 0.6 },
  glass: { name: 'green glass', colour: [0.36, 0.52, 0.36], roughness: 0.2 },
  fireclay: { name: 'fireclay', colour: [0.62, 0.36, 0.26], roughness: 0.95 },
  salt: { name: 'salt', colour: [0.88, 0.87, 0.82], roughness: 0.8 },
  lamp: { name: 'lamp', colour: [0.93, 0.78, 0.42], roughness: 0.4 },
} as const satisfies Record<string, Material>;

/** A box from `min` to `max`, metres: 12 triangles. */
export function box(
  material: Material,
  min: readonly [number, number, number],
  max: readonly [number, number, number],
): Part {
  const positions: number[] = [];
  const normals: number[] = [];
  const indices: number[] = [];
  for (let axis = 0; axis < 3; axis++) {
    for (const side of [-1, 1]) {
      const u = (axis + 1) % 3;
      const v = (axis + 2) % 3;
      const base = positions.length / 3;
      for (const [a, b] of [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ]) {
        const p = [0, 0, 0];
        p[axis] = side < 0 ? min[axis] : max[axis];
        p[u] = a ? max[u] : min[u];
        p[v] = b ? max[v] : min[v];
        positions.push(...p);
        const n = [0, 0, 0];
        n[axis] = side;
        normals.push(...n);
      }
      indices.push(...(side > 0 ? [0, 1, 2, 0, 2, 3] : [0, 2, 1, 0, 3, 2]).map((i) => base + i));
    }
  }
  return part(material, positions, normals, indices);
}

/** A profile turned about Y: `profile` holds radius and height from the bottom up, metres. */
export function lathe(
  material: Material,
  profile: readonly (readonly [number, number])[],
  sides: number,
  centre: readonly [number, number] = [0, 0],
): Part {
  const positions: number[] = [];
  const normals: number[] = [];
  const indices: number[] = [];
  for (let row = 0; row + 1 < profile.length; row++) {
    const [r0, y0] = profile[row];
    const [r1, y1] = profile[row + 1];
    const length = Math.sqrt((r1 - r0) * (r1 - r0) + (y1 - y0) * (y1 - y0));
    const out = (y1 - y0) / length;
    const up = (r0 - r1) / length;
    for (let side = 0; side < sides; side++) {
      const base = positions.length / 3;
      for (const [step, r, y] of [
        [0, r0, y0],
        [1, r0, y0],
        [1, r1, y1],
        [0, r1, y1],
      ]) {
        const angle = ((side + step) * 360) / sides;
        const c = cosDegrees(angle);
        const s = sinDegrees(angle);
        positions.push(centre[0] + r * c, y, centre[1] + r * s);
        normals.push(out * c, up, out * s);
      }
      if (r0 > 0) indices.push(base, base + 2, base + 1);
      if (r1 > 0) indices.push(base, base + 3, base + 2);
    }
  }
  return part(material, positions, normals, indices);
}

function part(material: Material, positions: number[], normals: number[], indices: number[]): Part {
  return {
    material: { ...material },
    positions: new Float32Array(positions),
    normals: new Float32Array(normals),
    indices: new Uint32Array(indices),
  };
}
