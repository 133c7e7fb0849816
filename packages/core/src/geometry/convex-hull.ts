import { CoreError } from '../errors';

/** Points nearer to a plane than this share of the points' extent lie on it: float32 holds no finer. */
const ON_PLANE = 1e-6;
/** How often all points are looked at. */
const MAX_ROUNDS = 8;

export interface ConvexHull {
  /** xyz of its corners, each one of the points. */
  readonly positions: Float32Array;
  /** Triangles, counter-clockwise seen from outside. */
  readonly indices: Uint32Array;
  /** Numbers of the points that are left outside, as it has no more corners than asked for. */
  readonly outside: readonly number[];
}

interface Face {
  /** Numbers of points, counter-clockwise from outside. */
  readonly corners: readonly [number, number, number];
  /** Outward, of length 1; inside is n·p ≤ offset. */
  readonly normal: readonly [number, number, number];
  readonly offset: number;
  /** Points that lie outside of it and of no face before it; the farthest first. */
  points: number[];
  farthest: number;
  isGone: boolean;
}

/**
 * The convex hull of points. The point that lies farthest outside is taken in first, so that a hull that has all its corners before
 * it is whole is off by little; it then lies within the whole one. Points within a millionth of the extent of a face count as on it.
 * @param positions xyz triples, finite, at most 2³² of them
 * @param most greatest number of corners, at least 4
 * @returns undefined where the points lie in one plane, or are fewer than four
 * @throws CoreError 'HULL_INPUT' where `most` is below 4 or a number is not finite
 * Cost: O(V · corners). Order: ties go to the point with the least number.
 * Source: Barber, Dobkin, Huhdanpaa, The quickhull algorithm for convex hulls, 1996. Differs in: the farthest point of all faces comes
 * first, and faces that a point lies on are opened with those that it sees, so that no face without area is made.
 */
export function convexHull(positions: Float32Array, most = Infinity): ConvexHull | undefined {
  if (!(most >= 4)) throw new CoreError('HULL_INPUT', `hull: takes at least 4 corners, not ${most}`);
  const count = Math.floor(positions.length / 3);
  const points = centred(positions, count);
  const tolerance = points.extent * ON_PLANE;
  const first = firstCorners(points.xyz, count, tolerance);
  if (!first) return undefined;
  const hull = new Hull(points.xyz, first, tolerance);
  let outside = Array.from({ length: count }, (_unused, i) => i);
  // Thin faces stand as they may: what came to lie outside again when they were opened is taken in once more.
  for (let round = 0; round < MAX_ROUNDS && outside.length > 0 && hull.cornerCount < most; round++) {
    hull.spread(outside);
    for (let face = hull.next(); face && hull.cornerCount < most; face = hull.next()) hull.takeIn(face);
    outside = hull.outside(count);
  }
  return { ...hull.result(positions), outside };
}

/** The points about the middle of their bounds: far from the origin their differences would drown. */
function centred(positions: Float32Array, count: number): { readonly xyz: Float64Array; readonly extent: number } {
  const xyz = new Float64Array(count * 3);
  let extent = 0;
  for (let k = 0; k < 3; k++) {
    let [low, high] = [Infinity, -Infinity];
    for (let i = 0; i < count; i++) {
      const value = positions[i * 3 + k];
      if (!Number.isFinite(value)) throw new CoreError('HULL_INPUT', `hull: positions[${i * 3 + k}] is ${value}`);
      if (value < low) low = value;
      if (value > high) high = value;
    }
    for (let i = 0; i < count; i++) xyz[i * 3 + k] = positions[i * 3 + k] - (low + high) / 2;
    if (high - low > extent) extent = high - low;
  }
  return { xyz, extent };
}

/** Four points with the space between them: the ends along the longest axis, then the farthest from their line, then from their plane. */
function firstCorners(
  xyz: Float64Array,
  count: number,
  tolerance: number,
): readonly [number, number, number, number] | undefined {
  if (count < 4) return undefined;
  const farthest = (of: (i: number) => number): number => {
    let [best, most] = [-1, tolerance];
    for (let i = 0; i < count; i++) {
      const value = of(i);
      if (value > most) [best, most] = [i, value];
    }
    return best;
  };
  let [a, b] = [0, 0];
  for (let k = 0; k < 3; k++) {
    let [low, high] = [0, 0];
    for (let i = 1; i < count; i++) {
      if (xyz[i * 3 + k] < xyz[low * 3 + k]) low = i;
      if (xyz[i * 3 + k] > xyz[high * 3 + k]) high = i;
    }
    if (xyz[high * 3 + k] - xyz[low * 3 + k] > Math.abs(xyz[b * 3 + k] - xyz[a * 3 + k])) [a, b] = [low, high];
  }
  const along = unit(difference(xyz, b, a));
  if (!along) return undefined;
  const c = farthest((i) => {
    const from = difference(xyz, i, a);
    return length(cross(along, from));
  });
  if (c < 0) return undefined;
  const normal = unit(cross(difference(xyz, b, a), difference(xyz, c, a)));
  if (!normal) return undefined;
  const d = farthest((i) => Math.abs(dot(normal, difference(xyz, i, a))));
  if (d < 0) return undefined;
  return dot(normal, difference(xyz, d, a)) > 0 ? [a, c, b, d] : [a, b, c, d];
}

class Hull {
  private faces: Face[] = [];
  /** The face on the left of each directed edge. */
  private readonly faceOfEdge = new Map<string, Face>();

  /** @param corners the fourth lies below the first three, seen counter-clockwise */
  constructor(
    private readonly xyz: Float64Array,
    [a, b, c, d]: readonly [number, number, number, number],
    private readonly tolerance: number,
  ) {
    for (const corners of [
      [a, b, c],
      [a, d, b],
      [b, d, c],
      [c, d, a],
    ] as const)
      this.add(corners);
  }

  /** A closed surface of triangles has two fewer corners than half its faces. */
  get cornerCount(): number {
    return this.faces.length / 2 + 2;
  }

  /** The face with the point that lies farthest outside; undefined where none does. */
  next(): Face | undefined {
    let best: Face | undefined;
    for (const face of this.faces) if (face.points.length > 0 && face.farthest > (best?.farthest ?? 0)) best = face;
    return best;
  }

  /** Gives each point to the first face that it lies outside of. */
  spread(points: readonly number[], faces: readonly Face[] = this.faces): void {
    for (const point of points) {
      for (const face of faces) {
        const distance = this.above(face, point);
        if (distance <= this.tolerance) continue;
        if (distance > face.farthest) {
          face.farthest = distance;
          face.points.unshift(point);
        } else face.points.push(point);
        break;
      }
    }
  }

  /** Grows the hull to the farthest point of a face. */
  takeIn(from: Face): void {
    const [point] = from.points;
    const seen = this.seenFrom(from, point);
    const rim = [...seen].flatMap(({ corners: [a, b, c] }) =>
      (
        [
          [a, b],
          [b, c],
          [c, a],
        ] as const
      ).filter(([u, v]) => !seen.has(this.across(u, v))),
    );
    if (!isOneLoop(rim)) {
      // Rounding has torn what it sees; the hull stays whole without it.
      from.points.shift();
      this.sortOut(from);
      return;
    }
    for (const face of seen) {
      face.isGone = true;
      const [a, b, c] = face.corners;
      for (const edge of [edgeKey(a, b), edgeKey(b, c), edgeKey(c, a)]) this.faceOfEdge.delete(edge);
    }
    this.faces = this.faces.filter(({ isGone }) => !isGone);
    const grown = rim.map(([u, v]) => this.add([u, v, point]));
    for (const face of seen)
      this.spread(
        face.points.filter((one) => one !== point),
        grown,
      );
  }

  /** Numbers of the points that lie outside of a face. */
  outside(count: number): number[] {
    const found: number[] = [];
    for (let point = 0; point < count; point++)
      if (this.faces.some((face) => this.above(face, point) > this.tolerance)) found.push(point);
    return found;
  }

  result(positions: Float32Array): Omit<ConvexHull, 'outside'> {
    const numbers = new Map<number, number>();
    const indices = new Uint32Array(this.faces.length * 3);
    this.faces.forEach(({ corners }, face) =>
      corners.forEach((corner, k) => {
        const number = numbers.get(corner) ?? numbers.size;
        numbers.set(corner, number);
        indices[face * 3 + k] = number;
      }),
    );
    const used = new Float32Array(numbers.size * 3);
    for (const [corner, number] of numbers)
      for (let k = 0; k < 3; k++) used[number * 3 + k] = positions[corner * 3 + k];
    return { positions: used, indices };
  }

  private add(corners: Face['corners']): Face {
    const [a, b, c] = corners;
    const normal = unit(cross(difference(this.xyz, b, a), difference(this.xyz, c, a))) ?? [0, 0, 0];
    const face: Face = {
      corners,
      normal,
      offset: dot(normal, [this.xyz[a * 3], this.xyz[a * 3 + 1], this.xyz[a * 3 + 2]]),
      points: [],
      farthest: 0,
      isGone: false,
    };
    this.faces.push(face);
    for (const edge of [edgeKey(a, b), edgeKey(b, c), edgeKey(c, a)]) this.faceOfEdge.set(edge, face);
    return face;
  }

  private above({ normal, offset }: Face, point: number): number {
    const at = point * 3;
    return normal[0] * this.xyz[at] + normal[1] * this.xyz[at + 1] + normal[2] * this.xyz[at + 2] - offset;
  }

  private across(u: number, v: number): Face {
    const face = this.faceOfEdge.get(edgeKey(v, u));
    if (!face) throw new CoreError('HULL_INPUT', `hull: the edge from ${u} to ${v} has one side only`);
    return face;
  }

  /** The faces about one that a point lies outside of, or on. */
  private seenFrom(from: Face, point: number): Set<Face> {
    const seen = new Set([from]);
    for (const face of seen) {
      const [a, b, c] = face.corners;
      for (const next of [this.across(a, b), this.across(b, c), this.across(c, a)])
        if (this.above(next, point) > -this.tolerance) seen.add(next);
    }
    return seen;
  }

  /** Finds the farthest of a face's points anew. */
  private sortOut(face: Face): void {
    const { points } = face;
    face.points = [];
    face.farthest = 0;
    this.spread(points, [face]);
  }
}

/** Whether edges go round once, through each corner once. */
function isOneLoop(edges: readonly (readonly [number, number])[]): boolean {
  const next = new Map(edges);
  if (edges.length < 3 || next.size < edges.length) return false;
  let at = edges[0][0];
  for (let i = 1; i <= edges.length; i++) {
    const to = next.get(at);
    if (to === undefined) return false;
    at = to;
    if (at === edges[0][0]) return i === edges.length;
  }
  return false;
}

function edgeKey(from: number, to: number): string {
  return `${from} ${to}`;
}

type Vector = readonly [number, number, number];

function difference(xyz: Float64Array, to: number, from: number): Vector {
  return [xyz[to * 3] - xyz[from * 3], xyz[to * 3 + 1] - xyz[from * 3 + 1], xyz[to * 3 + 2] - xyz[from * 3 + 2]];
}

function cross(a: Vector, b: Vector): Vector {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

function dot(a: Vector, b: Vector): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

function length(a: Vector): number {
  return Math.sqrt(dot(a, a));
}

function unit(a: Vector): Vector | undefined {
  const size = length(a);
  return size > 0 ? [a[0] / size, a[1] / size, a[2] / size] : undefined;
}
