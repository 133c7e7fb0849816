import type { TriangleGrid } from '../mesh/triangle-grid';
import type { Surface } from './surface';

/**
 * Counts triangles of a step that look away, by a quarter turn or more, from every triangle of the full surface that lies within a distance
 * of their middle: they would be seen from the wrong side.
 * @param grid of the full surface
 */
export function turnedTriangles(step: Surface, full: Surface, grid: TriangleGrid, withinMetres: number): number {
  const triangles = full.indices.length / 3;
  let turned = 0;
  for (let t = 0; t < step.indices.length / 3; t++) {
    const normal = normalOf(step, t);
    const [x, y, z] = middleOf(step, t);
    grid.nearestSquared(x, y, z);
    if (looksAlong(normal, normalOf(full, grid.nearestTriangle))) continue;
    let found = false;
    for (let q = 0; q < triangles && !found; q++)
      found = grid.squaredTo(q, x, y, z) <= withinMetres * withinMetres && looksAlong(normal, normalOf(full, q));
    if (!found) turned++;
  }
  return turned;
}

type Triple = readonly [number, number, number];

function looksAlong(a: Triple, b: Triple): boolean {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2] > 0;
}

function middleOf({ positions, indices }: Surface, t: number): Triple {
  const [a, b, c] = [indices[t * 3] * 3, indices[t * 3 + 1] * 3, indices[t * 3 + 2] * 3];
  return [
    (positions[a] + positions[b] + positions[c]) / 3,
    (positions[a + 1] + positions[b + 1] + positions[c + 1]) / 3,
    (positions[a + 2] + positions[b + 2] + positions[c + 2]) / 3,
  ];
}

function normalOf({ positions, indices }: Surface, t: number): Triple {
  const [a, b, c] = [indices[t * 3] * 3, indices[t * 3 + 1] * 3, indices[t * 3 + 2] * 3];
  const [ux, uy, uz] = [
    positions[b] - positions[a],
    positions[b + 1] - positions[a + 1],
    positions[b + 2] - positions[a + 2],
  ];
  const [vx, vy, vz] = [
    positions[c] - positions[a],
    positions[c + 1] - positions[a + 1],
    positions[c + 2] - positions[a + 2],
  ];
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
}
