import earcut from 'earcut';

/**
 * Cuts a polygon in space into triangles that wind as it does: a fan where it is convex, else by its ears as seen along its normal.
 * @param corners xyz triples in cyclic order, length 3·n, n ≥ 3; about in one plane
 * @returns corners of triangles as indices into `corners`, length a multiple of 3; a fan for what has no area or is not finite
 * Cost: O(n) where it is convex, about O(n log n) else, at worst O(n²).
 * Source: normal as in Newell, see Sutherland, Sproull, Schumacker, A Characterization of Ten Hidden-Surface Algorithms, 1974;
 * ears as in Eberly, Triangulation by Ear Clipping, 2002 (the earcut library).
 */
export function polygonTriangles(corners: ArrayLike<number>): number[] {
  const n = corners.length / 3;
  if (n === 3) return [0, 1, 2];
  const flat = seenAlongNormal(corners, n);
  if (!flat || isConvex(flat, n)) return fan(n);
  const triangles = earcut(flat);
  const wanted = Math.sign(areaOf(flat, n));
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i], triangles[i + 1], triangles[i + 2]];
    if (turn(flat, a, b, c) * wanted < 0) [triangles[i + 1], triangles[i + 2]] = [c, b];
  }
  return triangles.length > 0 ? triangles : fan(n);
}

function fan(n: number): number[] {
  const triangles: number[] = [];
  for (let k = 2; k < n; k++) triangles.push(0, k - 1, k);
  return triangles;
}

/** The polygon in two dimensions, relative to its first corner: its largest shadow on a plane of the axes. */
function seenAlongNormal(corners: ArrayLike<number>, n: number): number[] | undefined {
  const at = (i: number, k: number): number => corners[(i % n) * 3 + k] - corners[k];
  const normal = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < 3; k++) {
      const [u, v] = [(k + 1) % 3, (k + 2) % 3];
      normal[k] += at(i, u) * at(i + 1, v) - at(i, v) * at(i + 1, u);
    }
  }
  const size = normal.map(Math.abs);
  const along = size[0] >= size[1] && size[0] >= size[2] ? 0 : size[1] >= size[2] ? 1 : 2;
  if (!(size[along] > 0) || !Number.isFinite(size[0] + size[1] + size[2])) return undefined;
  const flat: number[] = [];
  for (let i = 0; i < n; i++) flat.push(at(i, (along + 1) % 3), at(i, (along + 2) % 3));
  return flat;
}

/** Twice the area of the triangle of three corners, above 0 where they turn left. */
function turn(flat: readonly number[], a: number, b: number, c: number): number {
  const [ax, ay] = [flat[2 * a], flat[2 * a + 1]];
  return (flat[2 * b] - ax) * (flat[2 * c + 1] - ay) - (flat[2 * b + 1] - ay) * (flat[2 * c] - ax);
}

function areaOf(flat: readonly number[], n: number): number {
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    sum += flat[2 * i] * flat[2 * j + 1] - flat[2 * j] * flat[2 * i + 1];
  }
  return sum;
}

/** Whether all triangles of its fan wind one way, so that the fan fills it and nothing else. */
function isConvex(flat: readonly number[], n: number): boolean {
  const wanted = Math.sign(areaOf(flat, n));
  for (let i = 0; i < n; i++) if (turn(flat, i, (i + 1) % n, (i + 2) % n) * wanted < 0) return false;
  for (let k = 2; k < n; k++) if (turn(flat, 0, k - 1, k) * wanted < 0) return false;
  return true;
}
