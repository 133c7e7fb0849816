/** Squared sine of a corner below which a triangle counts as one without area. */
const NO_AREA = 1e-12;

/**
 * The triangles of a mesh that have an area; of those that lie on the same three points and look the same way only the first, if asked.
 * Cost: O(n).
 * @returns the indices as they are when nothing is left out
 */
export function soundTriangles(
  positions: Float32Array,
  indices: Uint32Array,
  { once }: { readonly once: boolean },
): Uint32Array {
  const kept = new Uint32Array(indices.length);
  let count = 0;
  const seen = once ? new SeenTriangles(firstAtPlace(positions, indices), indices.length / 3) : undefined;
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [indices[t], indices[t + 1], indices[t + 2]];
    if (!hasArea(positions, a * 3, b * 3, c * 3) || seen?.isAgain(a, b, c)) continue;
    kept[count++] = a;
    kept[count++] = b;
    kept[count++] = c;
  }
  return count === indices.length ? indices : kept.slice(0, count);
}

/** Triangles by their points, in a table with open addresses. */
class SeenTriangles {
  private readonly slots: Int32Array;
  private readonly corners: Uint32Array;
  private count = 0;

  /** @param first for each vertex the first one in the same place @param most triangles at most */
  constructor(
    private readonly first: Int32Array,
    most: number,
  ) {
    this.slots = emptySlots(most);
    this.corners = new Uint32Array(most * 3);
  }

  /** Whether a triangle was seen before; it has been from now on. */
  isAgain(a: number, b: number, c: number): boolean {
    const { first, slots, corners } = this;
    let [p, q, r] = [first[a], first[b], first[c]];
    // From the least on, so that the same triangle has one name.
    while (p > q || p > r) [p, q, r] = [q, r, p];
    const mask = slots.length - 1;
    let slot = hashOf(p, q, r) & mask;
    for (; slots[slot] >= 0; slot = (slot + 1) & mask) {
      const at = slots[slot] * 3;
      if (corners[at] === p && corners[at + 1] === q && corners[at + 2] === r) return true;
    }
    const at = this.count * 3;
    corners[at] = p;
    corners[at + 1] = q;
    corners[at + 2] = r;
    slots[slot] = this.count++;
    return false;
  }
}

/** For each vertex in use the first one in the same place; -1 for others. */
function firstAtPlace(positions: Float32Array, indices: Uint32Array): Int32Array {
  const bits = new Int32Array(positions.buffer, positions.byteOffset, positions.length);
  // 0 and -0 are one place.
  const bitsAt = (i: number): number => (positions[i] === 0 ? 0 : bits[i]);
  const first = new Int32Array(positions.length / 3).fill(-1);
  const slots = emptySlots(positions.length / 3);
  const mask = slots.length - 1;
  for (const v of indices) {
    if (first[v] >= 0) continue;
    const [x, y, z] = [v * 3, v * 3 + 1, v * 3 + 2];
    let slot = hashOf(bitsAt(x), bitsAt(y), bitsAt(z)) & mask;
    for (; slots[slot] >= 0; slot = (slot + 1) & mask) {
      const at = slots[slot] * 3;
      if (positions[at] === positions[x] && positions[at + 1] === positions[y] && positions[at + 2] === positions[z])
        break;
    }
    if (slots[slot] < 0) slots[slot] = v;
    first[v] = slots[slot];
  }
  return first;
}

/** Room for some entries with at least as many gaps. */
function emptySlots(entries: number): Int32Array {
  let size = 8;
  while (size < entries * 2) size *= 2;
  return new Int32Array(size).fill(-1);
}

/** Of three whole numbers, well mixed (Appleby, MurmurHash3, 2011: its last step). */
function hashOf(a: number, b: number, c: number): number {
  let hash = Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca77) ^ Math.imul(c, 0xc2b2ae3d);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
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
