import FlatQueue from 'flatqueue';
import type { RunContext } from '../context/run-context';
import { TriangleGrid } from '../mesh/triangle-grid';
import { positionsOf, type MeshPart } from '../mesh/kit-meshes';
import type { Surface } from './surface';
import { turnedTriangles } from './turned-triangles';

/** The answer is settled once nothing can be farther off than this share more than what was found. */
const SETTLED_SHARE = 0.02;
/** Differences below this share of the surface's size are none: float32 holds no finer. */
const NO_DIFFERENCE = 1e-6;
/** Most triangles that are cut in two on either side. */
const MAX_CUTS = 8000;
/** By how much the distance to a near surface is expected to change along a metre. */
const SLOPE = 0.15;
/** Points between two looks at the cancel flag. */
const CHECK_POINTS = 4096;

/** @param steps indices of each part, those of the full step by default */
export function surfaceOf(
  parts: readonly MeshPart[],
  steps: readonly Uint32Array[] = parts.map(({ indices }) => indices),
): Surface {
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
   * How far another surface lies off this one, and this one off it: the greatest distance that was found from any point of either to the
   * nearest point of the other, metres. All vertices in use are measured, and the middles of all triangles that might hold a farther point;
   * those where most may be expected are cut in two, 8,000 times on either side, or until none can be farther off by 2 %. Never too large.
   * @throws CoreError 'CANCELLED'
   * Source: Cignoni, Rocchini, Scopigno, Metro: measuring error on simplified surfaces, 1998. Differs in: no even samples; triangles are left
   * out by the bound of Tang, Lee, Kim, Interactive Hausdorff distance computation for general polygonal models, 2009.
   */
  deviation(step: Surface, context: RunContext): number {
    const there = farthest(this.full, new TriangleGrid(step.positions, step.indices), 0, context);
    return Math.sqrt(farthest(step, this.grid, there, context));
  }

  /** Triangles of another surface that look away from all of this one within a distance of them. */
  turned(step: Surface, withinMetres: number): number {
    return turnedTriangles(step, this.full, this.grid, withinMetres);
  }
}

/** Greatest squared distance from points of a surface to another; at least what is known. */
function farthest({ positions, indices }: Surface, other: TriangleGrid, known: number, context: RunContext): number {
  const cutter = new Cutter(positions, other, known, context);
  // The vertices first: the farther off what they find, the fewer triangles are in doubt.
  for (const vertex of indices) cutter.ask(vertex);
  for (let t = 0; t < indices.length; t += 3) cutter.doubt(indices[t], indices[t + 1], indices[t + 2]);
  cutter.settle(NO_DIFFERENCE * sizeOf(positions, indices));
  return cutter.most;
}

function sizeOf(positions: Float32Array, indices: Uint32Array): number {
  let size = 0;
  for (let k = 0; k < 3; k++) {
    let [low, high] = [Infinity, -Infinity];
    for (const vertex of indices) {
      low = Math.min(low, positions[vertex * 3 + k]);
      high = Math.max(high, positions[vertex * 3 + k]);
    }
    size = Math.max(size, high - low);
  }
  return size;
}

/** Measures points of a surface against another, and cuts the triangles that are likeliest to hold the farthest one. */
class Cutter {
  /** Greatest squared distance that was found. */
  most: number;
  private readonly points: number[];
  /** A triangle of the other surface near each point; -1 where it was not asked for. */
  private readonly near: number[];
  /** Of triangles in doubt: three corners each, a triangle of the other surface nearest to the middle, and a bound of squared distances. */
  private readonly corners: number[] = [];
  private readonly middleNear: number[] = [];
  private readonly bounds: number[] = [];
  private readonly queue = new FlatQueue<number>();
  private asked = 0;

  constructor(
    positions: Float32Array,
    private readonly other: TriangleGrid,
    known: number,
    private readonly context: RunContext,
  ) {
    this.points = Array.from(positions);
    this.near = new Array<number>(positions.length / 3).fill(-1);
    this.most = known;
  }

  /** Measures a vertex, only as far as it may be the farthest. */
  ask(point: number): void {
    if (this.near[point] >= 0) return;
    const { points } = this;
    this.measure(points[point * 3], points[point * 3 + 1], points[point * 3 + 2], this.most);
    this.near[point] = this.other.nearestTriangle;
  }

  /** Keeps a triangle that may hold a point farther off than what was found. */
  doubt(a: number, b: number, c: number): void {
    let bound = this.farthestCorner(this.near[a], a, b, c);
    if (bound > this.settled() && this.near[b] !== this.near[a])
      bound = Math.min(bound, this.farthestCorner(this.near[b], a, b, c));
    if (bound > this.settled() && this.near[c] !== this.near[a])
      bound = Math.min(bound, this.farthestCorner(this.near[c], a, b, c));
    this.keep(a, b, c, bound);
  }

  /** Cuts until nothing is in doubt, or often enough. */
  settle(leastMetres: number): void {
    for (let cuts = 0; cuts < MAX_CUTS && this.queue.length > 0;) {
      const node = this.queue.pop() as number;
      if (this.bounds[node] <= Math.max(this.settled(), leastMetres * leastMetres)) continue;
      this.cut(node);
      cuts++;
    }
  }

  private settled(): number {
    return this.most * (1 + SETTLED_SHARE) * (1 + SETTLED_SHARE);
  }

  private measure(x: number, y: number, z: number, enough: number): number {
    if (++this.asked % CHECK_POINTS === 0) this.context.checkCancelled();
    const squared = this.other.nearestSquared(x, y, z, enough);
    if (squared > this.most) this.most = squared;
    return squared;
  }

  /** @param bound of squared distances, as far as it is known */
  private keep(a: number, b: number, c: number, bound: number): void {
    if (bound <= this.settled()) return;
    const { points } = this;
    const middle = [0, 1, 2].map((k) => (points[a * 3 + k] + points[b * 3 + k] + points[c * 3 + k]) / 3);
    const squared = this.measure(middle[0], middle[1], middle[2], -1);
    const near = this.other.nearestTriangle;
    const least = Math.min(bound, this.farthestCorner(near, a, b, c));
    if (least <= this.settled()) return;
    let radius = 0;
    for (const point of [a, b, c]) radius = Math.max(radius, squaredBetween(points, point, middle, 0));
    // Distances change slowly along surfaces that lie near each other: what may be expected, where the bound is far above it.
    const expected = Math.sqrt(squared) + SLOPE * Math.sqrt(radius);
    this.queue.push(this.bounds.length, -Math.min(least, expected * expected));
    this.corners.push(a, b, c);
    this.middleNear.push(near);
    this.bounds.push(least);
  }

  /** No point of a triangle is farther off than this: every one is at most as far from any one triangle as the farthest corner. */
  private farthestCorner(triangle: number, a: number, b: number, c: number): number {
    return Math.max(this.squaredTo(triangle, a), this.squaredTo(triangle, b), this.squaredTo(triangle, c));
  }

  private squaredTo(triangle: number, point: number): number {
    const { points } = this;
    return this.other.squaredTo(triangle, points[point * 3], points[point * 3 + 1], points[point * 3 + 2]);
  }

  /** Cuts a triangle at the middle of its longest edge. */
  private cut(node: number): void {
    const [a, b, c] = [this.corners[node * 3], this.corners[node * 3 + 1], this.corners[node * 3 + 2]];
    const { points } = this;
    const [ab, bc, ca] = [
      squaredBetween(points, a, points, b),
      squaredBetween(points, b, points, c),
      squaredBetween(points, c, points, a),
    ];
    if (bc >= ab && bc >= ca) this.cutEdge(node, b, c, a);
    else if (ca >= ab) this.cutEdge(node, c, a, b);
    else this.cutEdge(node, a, b, c);
  }

  private cutEdge(node: number, a: number, b: number, c: number): void {
    const { points } = this;
    const middle = this.near.length;
    for (let k = 0; k < 3; k++) points.push((points[a * 3 + k] + points[b * 3 + k]) / 2);
    this.near.push(-1);
    this.ask(middle);
    for (const [from, to] of [
      [a, middle],
      [middle, b],
    ]) {
      const bound = Math.min(
        this.bounds[node],
        this.farthestCorner(this.middleNear[node], from, to, c),
        this.farthestCorner(this.near[middle], from, to, c),
      );
      this.keep(from, to, c, bound);
    }
  }
}

function squaredBetween(a: readonly number[], first: number, b: readonly number[], second: number): number {
  const [x, y, z] = [
    a[first * 3] - b[second * 3],
    a[first * 3 + 1] - b[second * 3 + 1],
    a[first * 3 + 2] - b[second * 3 + 2],
  ];
  return x * x + y * y + z * z;
}
