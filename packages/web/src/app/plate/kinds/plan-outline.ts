import { planeOf } from '../face-plane';
import type { Filled, PlanSpot } from './plate-kind';

/** Whether a point of the plan lies over one of the faces that look up, or anywhere where there are none. */
export function isOverFaces({ x, z }: PlanSpot, { faces }: Filled): boolean {
  if (!faces) return true;
  return faces.some((face) => planeOf(face)[1] > 1e-6 && insideOutline(face, x, z));
}

/** Whether a point lies near a line of xyz triples, seen from above. */
export function isNearLine({ x, z, reach }: PlanSpot, line: Float64Array): boolean {
  for (let i = 0; i + 3 < line.length; i += 3) {
    const [dx, dz] = [line[i + 3] - line[i], line[i + 5] - line[i + 2]];
    const square = dx * dx + dz * dz;
    const t = square > 0 ? Math.min(1, Math.max(0, ((x - line[i]) * dx + (z - line[i + 2]) * dz) / square)) : 0;
    if (Math.hypot(line[i] + t * dx - x, line[i + 2] + t * dz - z) <= reach) return true;
  }
  return false;
}

/** Whether a point lies near the rim of what is filled: the edges of its faces, or the circle in its bounds. */
export function isNearRim(spot: PlanSpot, { bounds: { min, max }, faces }: Filled): boolean {
  if (!faces) {
    const radius = (max[0] - min[0]) / 2;
    const off = Math.hypot(spot.x - (min[0] + max[0]) / 2, spot.z - (min[2] + max[2]) / 2) - radius;
    return Math.abs(off) <= spot.reach;
  }
  return faces.some(
    (face) => isNearLine(spot, face) || isNearLine(spot, Float64Array.of(...face.slice(-3), ...face.slice(0, 3))),
  );
}

function insideOutline(face: Float64Array, x: number, z: number): boolean {
  let inside = false;
  for (let i = 0, j = face.length - 3; i < face.length; j = i, i += 3) {
    if (
      face[i + 2] > z !== face[j + 2] > z &&
      x < ((face[j] - face[i]) * (z - face[i + 2])) / (face[j + 2] - face[i + 2]) + face[i]
    )
      inside = !inside;
  }
  return inside;
}
