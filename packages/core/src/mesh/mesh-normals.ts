/**
 * Normals that the faces about each vertex have on average, weighted by their area.
 * @param positions xyz triples @param indices three corners a triangle
 * @returns xyz triples of length 1; straight up for a vertex without a face
 */
export function smoothNormals(positions: Float32Array, indices: Uint32Array): Float32Array {
  const sums = new Float64Array(positions.length);
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [indices[i] * 3, indices[i + 1] * 3, indices[i + 2] * 3];
    const ux = positions[b] - positions[a];
    const uy = positions[b + 1] - positions[a + 1];
    const uz = positions[b + 2] - positions[a + 2];
    const vx = positions[c] - positions[a];
    const vy = positions[c + 1] - positions[a + 1];
    const vz = positions[c + 2] - positions[a + 2];
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    for (const corner of [a, b, c]) for (let k = 0; k < 3; k++) sums[corner + k] += n[k];
  }
  const normals = new Float32Array(positions.length);
  for (let i = 0; i < sums.length; i += 3) {
    const length = Math.sqrt(sums[i] * sums[i] + sums[i + 1] * sums[i + 1] + sums[i + 2] * sums[i + 2]);
    if (length > 0) for (let k = 0; k < 3; k++) normals[i + k] = sums[i + k] / length;
    else normals[i + 1] = 1;
  }
  return normals;
}
