/** Squared sine of a corner below which a triangle counts as one without area. */
const NO_AREA = 1e-12;

/**
 * The triangles of a mesh that have an area; of those that lie on the same three points and look the same way only the first, if asked.
 * @returns the indices as they are when nothing is left out
 */
export function soundTriangles(positions: Float32Array, indices: Uint32Array, { once }: { readonly once: boolean }): Uint32Array {
  const kept: number[] = [];
  const points = once ? firstAtPlace(positions, indices) : undefined;
  const seen = new Set<string>();
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [indices[t], indices[t + 1], indices[t + 2]];
    if (!hasArea(positions, a * 3, b * 3, c * 3)) continue;
    if (points) {
      const key = turned(points.get(a) ?? a, points.get(b) ?? b, points.get(c) ?? c);
      if (seen.has(key)) continue;
      seen.add(key);
    }
    kept.push(a, b, c);
  }
  return kept.length === indices.length ? indices : Uint32Array.from(kept);
}

/** Three corners from the least on, so that the same triangle has one name. */
function turned(a: number, b: number, c: number): string {
  if (a <= b && a <= c) return `${a} ${b} ${c}`;
  return b <= c ? `${b} ${c} ${a}` : `${c} ${a} ${b}`;
}

/** For each vertex in use the first one in the same place. */
function firstAtPlace(positions: Float32Array, indices: Uint32Array): Map<number, number> {
  const byPlace = new Map<string, number>();
  const first = new Map<number, number>();
  for (const v of indices) {
    if (first.has(v)) continue;
    const place = `${positions[v * 3]} ${positions[v * 3 + 1]} ${positions[v * 3 + 2]}`;
    const known = byPlace.get(place) ?? v;
    byPlace.set(place, known);
    first.set(v, known);
  }
  return first;
}

function hasArea(p: Float32Array, a: number, b: number, c: number): boolean {
  const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
  const [wx, wy, wz] = [vx - ux, vy - uy, vz - uz];
  const [uu, vv, ww] = [ux * ux + uy * uy + uz * uz, vx * vx + vy * vy + vz * vz, wx * wx + wy * wy + wz * wz];
  const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  // Against the longest edge: a needle has an area, three corners in a line have none.
  const longest = Math.max(uu, vv, ww);
  return nx * nx + ny * ny + nz * nz > NO_AREA * longest * longest;
}
