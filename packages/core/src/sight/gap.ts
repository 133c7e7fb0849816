import type { PlaneTable } from '../geometry/plane-table';
import type { Polyhedron } from '../geometry/polyhedron';
import type { Vector3 } from '../model/vector';
import { BoxTree } from '../spatial/box-tree';

/** A point this near to a block's faces, or to a neighbour's edge, touches it, metres. */
const TOUCHES_METRES = 1e-3;
/** Where an edge is asked what it touches, as shares of its length. */
const ASKED = [1 / 6, 1 / 2, 5 / 6];

/** Polygons that fill a gap together, corners in order, xyz triples, metres. */
export interface GapShape {
  readonly polygons: readonly (readonly number[])[];
  /** Whether shutting it closes the level; false where other ways lead out, too. */
  readonly closes: boolean;
}

/** The hole through which a way out leaves the level. */
export interface Gap extends GapShape {
  /** Width along the ground and height; of a gap that lies flat both sides of its bounds, metres. */
  readonly sizeMetres: readonly [number, number];
  /** Ids of the two blocks that its longest edges touch, that of the longer contact first; fewer where nothing touches it. */
  readonly blocks: readonly string[];
}

/** Something between two pockets, or between a pocket and the outside, that can be shut. */
export interface Passage {
  readonly first: number;
  /** The other pocket, `OUTSIDE` where it leads out. */
  readonly second: number;
  /** Passages of one plane have one number. */
  readonly plane: number;
  /** Corners in order, xyz triples. */
  readonly corners: ArrayLike<number>;
}

export const OUTSIDE = -1;

/**
 * Where a way out leaves the level: the outermost of its passages that closes the level when it is shut, with the passages of its plane that
 * it touches, since planes of other blocks may divide one hole. Where several holes lead out none does: then the smallest passage of this way.
 * A hole so wide that one pocket lies on both sides of it is no passage; then it is one further in.
 * Cost: a flood for each patch that is tried, from the outside in, and a search of a tree for each passage of those patches.
 * @param starts pockets that hold a spawn
 * @param route numbers of the passages of the way, from the spawn on
 */
export function gapShape(starts: readonly number[], route: readonly number[], passages: readonly Passage[]): GapShape {
  const leadsOut = floodOut(starts, passages);
  const patchOf = patchesOf(passages);
  const tried = new Set<number>();
  let smallest: { readonly polygons: readonly number[][]; readonly area: number } | undefined;
  for (let i = route.length - 1; i >= 0; i--) {
    if (tried.has(route[i])) continue;
    const patch = patchOf(route[i]);
    for (const one of patch) tried.add(one);
    const polygons = [...patch].sort((a, b) => a - b).map((one) => Array.from(passages[one].corners));
    if (!leadsOut(patch)) return { polygons, closes: true };
    const area = polygons.reduce((sum, polygon) => sum + areaOf(polygon), 0);
    if (!smallest || area < smallest.area) smallest = { polygons, area };
  }
  return { polygons: smallest?.polygons ?? [], closes: false };
}

/** Tells whether the outside can be reached when some passages are shut. */
function floodOut(starts: readonly number[], passages: readonly Passage[]): (shut: ReadonlySet<number>) => boolean {
  // The outside is one pocket more; passages by pocket in one list, from where its own begin.
  const outside = passages.reduce((most, { first, second }) => Math.max(most, first, second), Math.max(...starts)) + 1;
  const ends = passages.map(({ first, second }) => [first, second === OUTSIDE ? outside : second] as const);
  const from = new Uint32Array(outside + 2);
  for (const pair of ends) for (const pocket of pair) from[pocket + 1] += 1;
  for (let pocket = 0; pocket <= outside; pocket++) from[pocket + 1] += from[pocket];
  const filled = from.slice();
  const of = new Uint32Array(passages.length * 2);
  ends.forEach((pair, passage) => {
    for (const pocket of pair) of[filled[pocket]++] = passage;
  });
  return (shut) => {
    const seen = new Uint8Array(outside + 1);
    for (const pocket of starts) seen[pocket] = 1;
    const open = [...starts];
    for (let pocket = open.pop(); pocket !== undefined && seen[outside] === 0; pocket = open.pop()) {
      for (let i = from[pocket]; i < from[pocket + 1]; i++) {
        const [first, second] = ends[of[i]];
        const next = first === pocket ? second : first;
        if (seen[next] === 1 || shut.has(of[i])) continue;
        seen[next] = 1;
        open.push(next);
      }
    }
    return seen[outside] === 1;
  };
}

/** A passage with those of its plane that hang together with it. */
function patchesOf(passages: readonly Passage[]): (passage: number) => ReadonlySet<number> {
  const planes = new Map<number, { readonly numbers: number[]; tree?: BoxTree }>();
  passages.forEach(({ plane }, i) => {
    const known = planes.get(plane);
    if (known) known.numbers.push(i);
    else planes.set(plane, { numbers: [i] });
  });
  return (passage) => {
    const patch = new Set([passage]);
    const plane = planes.get(passages[passage].plane);
    if (!plane) return patch;
    plane.tree ??= new BoxTree(Float64Array.from(plane.numbers.flatMap((one) => boxOf(passages[one].corners))));
    const open = [passage];
    for (let one = open.pop(); one !== undefined; one = open.pop()) {
      const box = boxOf(passages[one].corners);
      const min = box.slice(0, 3).map((value) => value - TOUCHES_METRES);
      const max = box.slice(3).map((value) => value + TOUCHES_METRES);
      for (const place of plane.tree.inBox(min, max)) {
        const other = plane.numbers[place];
        if (patch.has(other) || !touch(passages[one].corners, passages[other].corners)) continue;
        patch.add(other);
        open.push(other);
      }
    }
    return patch;
  };
}

function boxOf(corners: ArrayLike<number>): number[] {
  const extents = [0, 1, 2].map((axis) => extent(corners, axis));
  return [...extents.map(([least]) => least), ...extents.map(([, most]) => most)];
}

/** Whether two convex polygons of one plane share a stretch of an edge. */
function touch(a: ArrayLike<number>, b: ArrayLike<number>): boolean {
  return liesAlong(a, b) || liesAlong(b, a);
}

/** Whether the middle of a shared stretch: an asked point of an edge of one lies on an edge of the other. */
function liesAlong(a: ArrayLike<number>, b: ArrayLike<number>): boolean {
  return edgesOf(a).some(([from, to]) =>
    ASKED.some((share) => {
      const point = [0, 1, 2].map((k) => from[k] + (to[k] - from[k]) * share);
      return edgesOf(b).some((edge) => distanceTo(edge, point) <= TOUCHES_METRES);
    }),
  );
}

type Edge = readonly [readonly number[], readonly number[]];

function edgesOf(corners: ArrayLike<number>): Edge[] {
  const points = Array.from({ length: corners.length / 3 }, (_unused, i) => [0, 1, 2].map((k) => corners[i * 3 + k]));
  return points.map((point, i) => [point, points[(i + 1) % points.length]]);
}

function distanceTo([from, to]: Edge, point: readonly number[]): number {
  const along = to.map((value, k) => value - from[k]);
  const square = along.reduce((sum, value) => sum + value * value, 0);
  const dot = along.reduce((sum, value, k) => sum + value * (point[k] - from[k]), 0);
  const share = square > 0 ? Math.min(1, Math.max(0, dot / square)) : 0;
  return lengthOf(along.map((value, k) => from[k] + value * share - point[k]));
}

function lengthOf(vector: readonly number[]): number {
  return Math.sqrt(vector.reduce((sum, value) => sum + value * value, 0));
}

function extent(corners: ArrayLike<number>, axis: number): [number, number] {
  let [least, most] = [Infinity, -Infinity];
  for (let i = axis; i < corners.length; i += 3) {
    least = Math.min(least, corners[i]);
    most = Math.max(most, corners[i]);
  }
  return [least, most];
}

/** Area of a flat convex polygon, square metres. */
function areaOf(corners: readonly number[]): number {
  const sum = [0, 0, 0];
  for (let i = 0; i < corners.length; i += 3) {
    const j = (i + 3) % corners.length;
    for (let k = 0; k < 3; k++) {
      const [a, b] = [(k + 1) % 3, (k + 2) % 3];
      sum[k] += (corners[i + a] * corners[j + b] - corners[i + b] * corners[j + a]) / 2;
    }
  }
  return lengthOf(sum);
}

/** Mean of points, metres. @param points xyz triples, at least one */
export function middleOfPoints(points: ArrayLike<number>): Vector3 {
  const middle: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < points.length; i++) middle[i % 3] += points[i] / (points.length / 3);
  return middle;
}

/** A gap with its size and the blocks beside it. @param solids all that block view, by id */
export function describeGap(
  { polygons, closes }: GapShape,
  solids: readonly { readonly id: string; readonly solid: Polyhedron }[],
  table: PlaneTable,
): Gap {
  const contacts = solids
    .map(({ id, solid }) => ({ id, metres: contactMetres(polygons, solid, table) }))
    .filter(({ metres }) => metres > 0)
    .sort((a, b) => b.metres - a.metres || (a.id < b.id ? -1 : 1));
  const [x, y, z] = [0, 1, 2].map((axis) => {
    const [least, most] = extent(polygons.flat(), axis);
    return Math.max(0, most - least);
  });
  return {
    polygons,
    closes,
    sizeMetres: y > 1e-6 ? [lengthOf([x, z]), y] : [x, z],
    blocks: contacts.slice(0, 2).map(({ id }) => id),
  };
}

/** How much of the edges of a gap lies on a block, metres. */
function contactMetres(polygons: readonly (readonly number[])[], solid: Polyhedron, table: PlaneTable): number {
  const b = solid.bounds;
  const isOn = (point: readonly number[]): boolean =>
    point.every((value, k) => value >= b[k] - TOUCHES_METRES && value <= b[k + 3] + TOUCHES_METRES) &&
    solid.faces.every(({ support }) => {
      const [nx, ny, nz, d] = table.plane(support);
      return nx * point[0] + ny * point[1] + nz * point[2] - d <= TOUCHES_METRES;
    });
  let metres = 0;
  for (const [from, to] of polygons.flatMap((polygon) => edgesOf(polygon))) {
    const length = lengthOf(to.map((value, k) => value - from[k]));
    for (const share of ASKED)
      if (isOn(to.map((value, k) => from[k] + (value - from[k]) * share))) metres += length / ASKED.length;
  }
  return metres;
}
