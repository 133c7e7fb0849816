import type { RunContext } from '../context/run-context';
import type { KitMeshes, MeshOfPiece } from '../mesh/kit-meshes';
import { positionsOf } from '../mesh/kit-meshes';
import { dot, cross } from './pose-of-matrix';
import { middleOf, rigidFit } from './rigid-fit';
import { matrixOf, movedPoint, UNIT_MATRIX, type Matrix } from '../geometry/matrix';
import { symmetricAxes } from './symmetric-axes';
import type { Vector3 } from '../model/vector';

/** Texture coordinates, colours and other numbers of vertices that differ by less are equal. */
const VALUE_TOLERANCE = 1e-4;
/** The same of each number of a normal. */
const NORMAL_TOLERANCE = 0.02;
/** Spreads along two axes that are closer than this share of the greater are those of a round thing: it has no turn of its own. */
const ROUND_SHARE = 1e-3;
/** Meshes of one size that are compared at most: what has more of them is not told apart by its size. */
const MAX_COMPARED = 32;

/** A mesh as another one, turned and moved. */
export interface EqualMesh {
  /** Number of the mesh that it is like; its own where it is the first. */
  readonly like: number;
  /** From the frame of that one to its own. */
  readonly matrix: Matrix;
  /** Greatest distance of a vertex from its place, in units of the file. */
  readonly off: number;
}

interface Shape {
  readonly points: Float64Array;
  readonly middle: Vector3;
  /** Mean square distance of vertices from their middle. */
  readonly spread: number;
  /** Distance of each vertex from there, in order, and ascending: whatever is turned and moved keeps them. */
  readonly radii: Float64Array;
  readonly sortedRadii: Float64Array;
  /** Made when it is first asked for; null where it has none. */
  axes?: ReturnType<typeof ownAxes> | null;
  readonly mesh: MeshOfPiece;
  /** Parts with their materials, and how many vertices and triangles they have. */
  readonly kind: string;
}

/**
 * Finds meshes that are one: the same vertices in the same order, else the same shape, turned and moved (never scaled or mirrored). Each is confirmed by
 * the distance of all its vertices, and by their other values. What looks the same from several sides stays apart unless its vertices have one
 * order, as nobody could say how it is turned.
 * @param tolerance greatest distance of a vertex, in units of the file
 * @throws CoreError 'CANCELLED'
 */
export function equalMeshes({ pieces, materials }: KitMeshes, tolerance: number, context: RunContext): EqualMesh[] {
  const keys = materials.map((material) => JSON.stringify(material));
  const shapes = pieces.map((mesh) => shapeOf(mesh, keys));
  const found: EqualMesh[] = [];
  const firsts = new Map<string, number[]>();
  shapes.forEach((shape, number) => {
    if (number % 64 === 0) {
      context.checkCancelled();
      context.progress(number / shapes.length, 'looking for equal meshes');
    }
    const known = firsts.get(shape.kind) ?? [];
    firsts.set(shape.kind, known);
    const near = known.filter((first) => isAsLarge(shapes[first], shape, tolerance)).slice(0, MAX_COMPARED);
    for (const first of near) {
      const match = matchOf(shapes[first], shape, tolerance);
      if (!match) continue;
      found.push({ like: first, ...match });
      return;
    }
    known.push(number);
    found.push({ like: number, matrix: UNIT_MATRIX, off: 0 });
  });
  return found;
}

function shapeOf(mesh: MeshOfPiece, materials: readonly string[]): Shape {
  const points = new Float64Array(mesh.parts.reduce((sum, part) => sum + positionsOf(part).length, 0));
  let end = 0;
  for (const part of mesh.parts) {
    points.set(positionsOf(part), end);
    end += positionsOf(part).length;
  }
  const middle = points.length > 0 ? middleOf(points) : ([0, 0, 0] as const);
  let spread = 0;
  const radii = new Float64Array(points.length / 3);
  for (let i = 0; i < radii.length; i++) {
    const [x, y, z] = [0, 1, 2].map((k) => points[i * 3 + k] - middle[k]);
    const squared = x * x + y * y + z * z;
    spread += squared;
    radii[i] = Math.sqrt(squared);
  }
  const kind = mesh.parts
    .map(({ material, attributes, indices }) =>
      [
        material === null ? '' : materials[material],
        indices.length,
        attributes.map(({ semantic, values }) => `${semantic} ${values.length}`).join(' '),
      ].join('|'),
    )
    .join('\n');
  return {
    mesh,
    points,
    middle,
    spread: spread / Math.max(1, radii.length),
    radii,
    sortedRadii: radii.slice().sort(),
    kind,
  };
}

/** Whether two shapes could be one, within what the tolerance allows: as their vertices lie about their middles. */
function isAsLarge(a: Shape, b: Shape, tolerance: number): boolean {
  return (
    Math.abs(Math.sqrt(a.spread) - Math.sqrt(b.spread)) <= tolerance * 2 &&
    areNear(a.sortedRadii, b.sortedRadii, tolerance * 2)
  );
}

function areNear(a: Float64Array, b: Float64Array, tolerance: number): boolean {
  for (let i = 0; i < a.length; i++) if (Math.abs(a[i] - b[i]) > tolerance) return false;
  return true;
}

function matchOf(first: Shape, other: Shape, tolerance: number): Omit<EqualMesh, 'like'> | undefined {
  if (first.points.length === 0) return undefined;
  if (areNear(first.radii, other.radii, tolerance * 2) && hasSameOrder(first.mesh, other.mesh)) {
    const matrix = rigidFit(first.points, other.points);
    const off = pairDistance(first.points, other.points, matrix);
    if (off <= tolerance && hasSameValues(first.mesh, other.mesh, matrix))
      return { matrix: isSame(first, other) ? UNIT_MATRIX : matrix, off };
  }
  return matchByShape(first, other, tolerance);
}

/** Whether two meshes are the same without any turn. */
function isSame({ points }: Shape, other: Shape): boolean {
  return points.every((value, i) => value === other.points[i]);
}

/** Whether the triangles of two meshes have their corners in one order. */
function hasSameOrder(a: MeshOfPiece, b: MeshOfPiece): boolean {
  return a.parts.every(({ indices }, i) => indices.every((corner, k) => corner === b.parts[i].indices[k]));
}

/** Whether vertices are alike, one by one, in all but where they are. */
function hasSameValues(a: MeshOfPiece, b: MeshOfPiece, matrix: Matrix): boolean {
  return a.parts.every((part, i) => {
    const count = positionsOf(part).length / 3;
    for (let vertex = 0; vertex < count; vertex++) if (!isAlike(part, vertex, b.parts[i], vertex, matrix)) return false;
    return true;
  });
}

/** Greatest distance of moved points from those that they are paired with. */
function pairDistance(from: Float64Array, to: Float64Array, matrix: Matrix): number {
  let most = 0;
  for (let i = 0; i < from.length; i += 3) {
    const [x, y, z] = movedPoint(matrix, [from[i], from[i + 1], from[i + 2]]);
    const [dx, dy, dz] = [x - to[i], y - to[i + 1], z - to[i + 2]];
    most = Math.max(most, dx * dx + dy * dy + dz * dz);
  }
  return Math.sqrt(most);
}

/** The one way to turn a shape into another, whatever the order of their vertices; undefined where there is none, or more than one. */
function matchByShape(first: Shape, other: Shape, tolerance: number): Omit<EqualMesh, 'like'> | undefined {
  const [a, b] = [axesOf(first), axesOf(other)];
  if (!a || !b) return undefined;
  const matches: Omit<EqualMesh, 'like'>[] = [];
  for (const [sx, sy] of [
    [1, 1],
    [1, -1],
    [-1, 1],
    [-1, -1],
  ]) {
    const [x, y] = [scaled(b[0], sx), scaled(b[1], sy)];
    const matrix = between(first.middle, a, other.middle, [x, y, cross(x, y)]);
    const pairs = pairsOf(first, other, matrix, tolerance);
    if (!pairs) continue;
    const better = rigidFit(first.points, pairs);
    matches.push({ matrix: better, off: pairDistance(first.points, pairs, better) });
  }
  const [match] = matches;
  return matches.length === 1 && match.off <= tolerance ? match : undefined;
}

function axesOf(shape: Shape): ReturnType<typeof ownAxes> {
  shape.axes ??= ownAxes(shape) ?? null;
  return shape.axes ?? undefined;
}

/** Axes along which a shape is spread most, next, least: right-handed; undefined where two are spread alike. */
function ownAxes({ points, middle, spread }: Shape): [Vector3, Vector3, Vector3] | undefined {
  const s = [0, 1, 2].map(() => [0, 0, 0]);
  for (let i = 0; i < points.length; i += 3)
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) s[r][c] += (points[i + r] - middle[r]) * (points[i + c] - middle[c]);
  const { values, axes } = symmetricAxes(s);
  const order = [0, 1, 2].sort((i, k) => values[k] - values[i]);
  const least = spread * (points.length / 3) * ROUND_SHARE;
  if (values[order[0]] - values[order[1]] < least || values[order[1]] - values[order[2]] < least) return undefined;
  const [x, y] = [axes[order[0]], axes[order[1]]].map(([i, k, n]): Vector3 => [i, k, n]);
  return [x, y, cross(x, y)];
}

/** Turns axes into others and moves a middle onto another. */
function between(from: Vector3, a: readonly Vector3[], to: Vector3, b: readonly Vector3[]): Matrix {
  const at = (row: number, column: number): number => a.reduce((sum, axis, i) => sum + b[i][row] * axis[column], 0);
  const turn = matrixOf(
    [at(0, 0), at(1, 0), at(2, 0), at(0, 1), at(1, 1), at(2, 1), at(0, 2), at(1, 2), at(2, 2)],
    [0, 0, 0],
  );
  const [x, y, z] = movedPoint(turn, from);
  return [...turn.slice(0, 12), to[0] - x, to[1] - y, to[2] - z, 1];
}

/**
 * For each vertex of the first the place of the one of the other that it comes to lie on, with the same values; undefined where one has none, or
 * where triangles differ.
 */
function pairsOf(first: Shape, other: Shape, matrix: Matrix, tolerance: number): Float64Array | undefined {
  const pairs = new Float64Array(first.points.length);
  // The turn is that of all vertices together: a single one may be off by somewhat more before the fit.
  const reach = tolerance * 2;
  let start = 0;
  for (const [number, part] of first.mesh.parts.entries()) {
    const others = other.mesh.parts[number];
    const grid = new Map<string, number[]>();
    const positions = positionsOf(others);
    for (let i = 0; i < positions.length; i += 3) {
      const key = cellOf([positions[i], positions[i + 1], positions[i + 2]], reach, [0, 0, 0]);
      grid.set(key, [...(grid.get(key) ?? []), i / 3]);
    }
    const own = positionsOf(part);
    const paired: number[] = [];
    for (let i = 0; i < own.length; i += 3) {
      const place = movedPoint(matrix, [own[i], own[i + 1], own[i + 2]]);
      const vertex = nearest(place, i / 3, part, others, { grid, reach, matrix });
      if (vertex === undefined) return undefined;
      paired.push(vertex);
      pairs.set(positions.subarray(vertex * 3, vertex * 3 + 3), start + i);
    }
    if (!hasSameTriangles(part.indices, others.indices, paired)) return undefined;
    start += own.length;
  }
  return pairs;
}

function cellOf(place: Vector3, size: number, by: readonly number[]): string {
  return place.map((value, k) => Math.floor(value / size) + by[k]).join(' ');
}

const AROUND = [-1, 0, 1].flatMap((x) => [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((z) => [x, y, z])));

function nearest(
  place: Vector3,
  own: number,
  part: MeshOfPiece['parts'][number],
  others: MeshOfPiece['parts'][number],
  {
    grid,
    reach,
    matrix,
  }: { readonly grid: ReadonlyMap<string, readonly number[]>; readonly reach: number; readonly matrix: Matrix },
): number | undefined {
  const positions = positionsOf(others);
  let best: number | undefined;
  let least = reach * reach;
  for (const by of AROUND) {
    for (const vertex of grid.get(cellOf(place, reach, by)) ?? []) {
      const off: Vector3 = [
        positions[vertex * 3] - place[0],
        positions[vertex * 3 + 1] - place[1],
        positions[vertex * 3 + 2] - place[2],
      ];
      const squared = dot(off, off);
      if (squared > least || !isAlike(part, own, others, vertex, matrix)) continue;
      [best, least] = [vertex, squared];
    }
  }
  return best;
}

/** Whether two vertices are alike in all but where they are. @param matrix turns the first */
function isAlike(
  a: MeshOfPiece['parts'][number],
  vertex: number,
  b: MeshOfPiece['parts'][number],
  other: number,
  matrix: Matrix,
): boolean {
  return a.attributes.every(({ semantic, size, values }, k) => {
    // Tangents follow from the rest.
    if (semantic === 'POSITION' || semantic === 'TANGENT') return true;
    const theirs = b.attributes[k].values;
    const isNormal = semantic === 'NORMAL';
    for (let n = 0; n < size; n++) {
      const at = vertex * size;
      const own = isNormal
        ? matrix[n] * values[at] + matrix[4 + n] * values[at + 1] + matrix[8 + n] * values[at + 2]
        : values[at + n];
      if (!(Math.abs(own - theirs[other * size + n]) <= (isNormal ? NORMAL_TOLERANCE : VALUE_TOLERANCE))) return false;
    }
    return true;
  });
}

/** Whether the triangles of two parts are the same once vertices are paired, whichever corner comes first. */
function hasSameTriangles(a: Uint32Array, b: Uint32Array, paired: readonly number[]): boolean {
  const keyOf = (i: number, k: number, n: number): string => {
    const least = Math.min(i, k, n);
    return i === least ? `${i} ${k} ${n}` : k === least ? `${k} ${n} ${i}` : `${n} ${i} ${k}`;
  };
  const left = new Map<string, number>();
  for (let i = 0; i < b.length; i += 3) {
    const key = keyOf(b[i], b[i + 1], b[i + 2]);
    left.set(key, (left.get(key) ?? 0) + 1);
  }
  for (let i = 0; i < a.length; i += 3) {
    const key = keyOf(paired[a[i]], paired[a[i + 1]], paired[a[i + 2]]);
    const count = left.get(key) ?? 0;
    if (count === 0) return false;
    left.set(key, count - 1);
  }
  return true;
}

function scaled([x, y, z]: Vector3, by: number): Vector3 {
  return [x * by, y * by, z * by];
}
