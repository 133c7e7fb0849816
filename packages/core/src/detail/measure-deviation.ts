import type { RunContext } from '../context/run-context';
import { TriangleGrid } from '../mesh/triangle-grid';
import { positionsOf, type MeshPart } from '../mesh/kit-meshes';
import type { RandomStream } from '../random/random-stream';

/** Points spread over the triangles of each of the two surfaces, beside all their vertices. */
const SAMPLES = 20000;
/** Points between two looks at the cancel flag. */
const CHECK_POINTS = 4096;

/** The triangles of all parts of a piece together. */
export interface Surface {
  readonly positions: Float32Array;
  readonly indices: Uint32Array;
}

/** @param steps indices of each part, those of the full step by default */
export function surfaceOf(parts: readonly MeshPart[], steps: readonly Uint32Array[] = parts.map(({ indices }) => indices)): Surface {
  const positions = new Float32Array(parts.reduce((sum, part) => sum + positionsOf(part).length, 0));
  const indices = new Uint32Array(steps.reduce((sum, list) => sum + list.length, 0));
  let [vertex, corner] = [0, 0];
  parts.forEach((part, i) => {
    positions.set(positionsOf(part), vertex * 3);
    for (const index of steps[i]) indices[corner++] = index + vertex;
    vertex += positionsOf(part).length / 3;
  });
  return { positions, indices };
}

/** A surface that others are measured against, with its index built once. */
export class MeasuredSurface {
  private readonly grid: TriangleGrid;

  constructor(private readonly full: Surface) {
    this.grid = new TriangleGrid(full.positions, full.indices);
  }

  /**
   * How far another surface lies off this one, and this one off it: the greatest distance from any sampled point of either to
   * the nearest point of the other, metres. Samples are all vertices in use and points spread evenly over the area.
   * @throws CoreError 'CANCELLED'
   * Source: Cignoni, Rocchini, Scopigno, Metro: measuring error on simplified surfaces, 1998.
   */
  deviation(step: Surface, context: RunContext): number {
    const there = worst(this.full, new TriangleGrid(step.positions, step.indices), 0, context.random('deviation of the full surface'), context);
    return Math.sqrt(worst(step, this.grid, there, context.random('deviation of the step'), context));
  }
}

/** Greatest squared distance from points of a surface to another; at least `known`. */
function worst({ positions, indices }: Surface, other: TriangleGrid, known: number, random: RandomStream, context: RunContext): number {
  let most = known;
  let asked = 0;
  const ask = (x: number, y: number, z: number): void => {
    if (++asked % CHECK_POINTS === 0) context.checkCancelled();
    const squared = other.nearestSquared(x, y, z, most);
    if (squared > most) most = squared;
  };
  const isAsked = new Uint8Array(positions.length / 3);
  for (const vertex of indices) {
    if (isAsked[vertex]) continue;
    isAsked[vertex] = 1;
    ask(positions[vertex * 3], positions[vertex * 3 + 1], positions[vertex * 3 + 2]);
  }
  const areas = areasUpTo(positions, indices);
  const all = areas[areas.length - 1];
  for (let i = 0, triangle = 0; i < SAMPLES && all > 0; i++) {
    // One point in each of equal parts of the area.
    const at = ((i + random.next()) / SAMPLES) * all;
    while (triangle < areas.length - 1 && areas[triangle] < at) triangle++;
    let s = random.next();
    let t = random.next();
    if (s + t > 1) [s, t] = [1 - s, 1 - t];
    const a = indices[triangle * 3] * 3;
    const b = indices[triangle * 3 + 1] * 3;
    const c = indices[triangle * 3 + 2] * 3;
    const along = (k: number): number => positions[a + k] + s * (positions[b + k] - positions[a + k]) + t * (positions[c + k] - positions[a + k]);
    ask(along(0), along(1), along(2));
  }
  return most;
}

/** Sum of the areas of all triangles up to and with each. */
function areasUpTo(positions: Float32Array, indices: Uint32Array): Float64Array {
  const areas = new Float64Array(indices.length / 3);
  let sum = 0;
  for (let t = 0; t < areas.length; t++) {
    const [a, b, c] = [indices[t * 3] * 3, indices[t * 3 + 1] * 3, indices[t * 3 + 2] * 3];
    const u = [0, 1, 2].map((k) => positions[b + k] - positions[a + k]);
    const v = [0, 1, 2].map((k) => positions[c + k] - positions[a + k]);
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    sum += Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]) / 2;
    areas[t] = sum;
  }
  return areas;
}
