/** The plane of a face: its normal, not of length 1, and its offset. */
export function planeOf(face: Float64Array): [number, number, number, number] {
  const ux = face[3] - face[0];
  const uy = face[4] - face[1];
  const uz = face[5] - face[2];
  const vx = face[6] - face[0];
  const vy = face[7] - face[1];
  const vz = face[8] - face[2];
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  return [nx, ny, nz, nx * face[0] + ny * face[1] + nz * face[2]];
}
