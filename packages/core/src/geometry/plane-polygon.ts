import type { PlaneRef, PlaneTable } from './plane-table';

/**
 * A convex polygon given by planes alone: the plane it lies on and, in cyclic order, the planes that bound it, each
 * with the polygon on its inner side. Corner i is where the support meets edges i and i+1. Coordinates are only an
 * approximation kept beside the planes, with a bound of their error; every decision that they cannot carry is made
 * exactly from the planes.
 * Source: Sugihara and Iri, A solid modelling system free from topological inconsistency, 1989;
 * Bernstein and Fussell 2009, sections 3 and 5.
 */
export interface PlanePolygon {
  readonly support: PlaneRef;
  readonly edges: readonly PlaneRef[];
  /** xyz triples, metres, one a corner. */
  readonly corners: readonly number[];
  /** Bound of the error of each corner's coordinates, metres; Infinity when nothing is known. */
  readonly errors: readonly number[];
}

/** Where a corner lies: −1 inside, 0 on the plane, 1 outside. */
export type Side = -1 | 0 | 1;

const ROUNDING = 2.220446049250313e-16;

/** Builds a polygon from its planes. Edges must be in cyclic order and bound a convex polygon with an inside. */
export function planePolygon(table: PlaneTable, support: PlaneRef, edges: readonly PlaneRef[]): PlanePolygon {
  const n = edges.length;
  // Plain arrays: made by the hundred thousand and dropped again, typed ones cost three times as much.
  const corners: number[] = [];
  const errors: number[] = [];
  for (let i = 0; i < n; i++) {
    errors[i] = intersect(table, support, edges[i], edges[(i + 1) % n], corners, i * 3);
  }
  return { support, edges, corners, errors };
}

/** The side of corner i; exact. */
export function sideOfCorner(table: PlaneTable, polygon: PlanePolygon, i: number, plane: PlaneRef): Side {
  if (plane >> 1 === polygon.support >> 1) return 0;
  const edge = polygon.edges[i];
  const next = polygon.edges[(i + 1) % polygon.edges.length];
  if (plane >> 1 === edge >> 1 || plane >> 1 === next >> 1) return 0;
  const at = i * 3;
  const x = polygon.corners[at];
  const y = polygon.corners[at + 1];
  const z = polygon.corners[at + 2];
  const s = table.distance(plane, x, y, z);
  const bound =
    4 * polygon.errors[i] + 16 * ROUNDING * (Math.abs(x) + Math.abs(y) + Math.abs(z) + Math.abs(table.offset(plane)));
  if (s > bound) return 1;
  if (s < -bound) return -1;
  return exactSide(table, polygon.support, edge, next, plane);
}

/** Sides of all corners into `sides`; returns bit 1 when one is inside, bit 2 when one is outside. */
export function sidesOfCorners(table: PlaneTable, polygon: PlanePolygon, plane: PlaneRef, sides: Int8Array): number {
  let seen = 0;
  for (let i = 0; i < polygon.edges.length; i++) {
    const side = sideOfCorner(table, polygon, i, plane);
    sides[i] = side;
    if (side < 0) seen |= 1;
    else if (side > 0) seen |= 2;
  }
  return seen;
}

const scratchSides = new Int8Array(4096);

/**
 * The part of a polygon on the inner side of a plane; the polygon itself when nothing is cut off, undefined when
 * nothing with an inside is left. Never rounds.
 */
export function clipPolygon(table: PlaneTable, polygon: PlanePolygon, plane: PlaneRef): PlanePolygon | undefined {
  const n = polygon.edges.length;
  const seen = sidesOfCorners(table, polygon, plane, scratchSides);
  if ((seen & 2) === 0) return (seen & 1) === 0 ? undefined : polygon;
  if ((seen & 1) === 0) return undefined;
  // Edge i runs from corner i-1 to corner i; it stays when part of it is strictly inside. The edges that stay are one run.
  const stays = (i: number): boolean => scratchSides[(i + n - 1) % n] < 0 || scratchSides[i % n] < 0;
  let first = 0;
  while (!(stays(first) && !stays(first + n - 1))) {
    first++;
    if (first === n) break;
  }
  if (first === n) {
    // Every edge has a part inside: the one corner outside separates the run.
    first = 0;
    while (scratchSides[(first + n - 1) % n] <= 0) first++;
  }
  const edges: PlaneRef[] = [];
  for (let k = 0; k < n && stays(first + k); k++) edges.push(polygon.edges[(first + k) % n]);
  edges.push(plane);
  return clippedPolygon(table, polygon, edges, first);
}

/** A polygon whose edges but the last are a run of another's from `first` on: only the two corners at the last are new. */
function clippedPolygon(
  table: PlaneTable,
  { support, corners: old, errors: oldErrors }: PlanePolygon,
  edges: readonly PlaneRef[],
  first: number,
): PlanePolygon {
  const n = edges.length;
  // Plain arrays: made by the hundred thousand and dropped again, typed ones cost three times as much.
  const corners: number[] = [];
  const errors: number[] = [];
  for (let i = 0; i < n - 2; i++) {
    const from = (first + i) % oldErrors.length;
    corners[i * 3] = old[from * 3];
    corners[i * 3 + 1] = old[from * 3 + 1];
    corners[i * 3 + 2] = old[from * 3 + 2];
    errors[i] = oldErrors[from];
  }
  errors[n - 2] = intersect(table, support, edges[n - 2], edges[n - 1], corners, (n - 2) * 3);
  errors[n - 1] = intersect(table, support, edges[n - 1], edges[0], corners, (n - 1) * 3);
  return { support, edges, corners, errors };
}

function intersect(table: PlaneTable, a: PlaneRef, b: PlaneRef, c: PlaneRef, out: number[], at: number): number {
  const ax = table.normalX(a);
  const ay = table.normalY(a);
  const az = table.normalZ(a);
  const ad = table.offset(a);
  const bx = table.normalX(b);
  const by = table.normalY(b);
  const bz = table.normalZ(b);
  const bd = table.offset(b);
  const cx = table.normalX(c);
  const cy = table.normalY(c);
  const cz = table.normalZ(c);
  const cd = table.offset(c);
  const bcx = by * cz - bz * cy;
  const bcy = bz * cx - bx * cz;
  const bcz = bx * cy - by * cx;
  const w = ax * bcx + ay * bcy + az * bcz;
  const cax = cy * az - cz * ay;
  const cay = cz * ax - cx * az;
  const caz = cx * ay - cy * ax;
  const abx = ay * bz - az * by;
  const aby = az * bx - ax * bz;
  const abz = ax * by - ay * bx;
  out[at] = (ad * bcx + bd * cax + cd * abx) / w + 0;
  out[at + 1] = (ad * bcy + bd * cay + cd * aby) / w + 0;
  out[at + 2] = (ad * bcz + bd * caz + cd * abz) / w + 0;
  const size = Math.abs(ad) + Math.abs(bd) + Math.abs(cd);
  const magnitude = Math.abs(out[at]) + Math.abs(out[at + 1]) + Math.abs(out[at + 2]);
  // Relative error of w is at most a few roundings over |w|, as normals have length 1.
  const width = Math.abs(w);
  return width > 1e-9 ? (24 * ROUNDING * (size + magnitude)) / width : Infinity;
}

/** Sign of n·v − d at v = a ∩ b ∩ c, from whole numbers: −sign(det4) · sign(det3). */
function exactSide(table: PlaneTable, a: PlaneRef, b: PlaneRef, c: PlaneRef, plane: PlaneRef): Side {
  const rows = [a, b, c, plane];
  const m = rows.map((ref) => [table.whole(ref, 0), table.whole(ref, 1), table.whole(ref, 2), table.whole(ref, 3)]);
  const minor = (r: number, s: number, i: number, j: number): bigint => m[r][i] * m[s][j] - m[r][j] * m[s][i];
  const determinant3 = m[0][0] * minor(1, 2, 1, 2) - m[0][1] * minor(1, 2, 0, 2) + m[0][2] * minor(1, 2, 0, 1);
  const determinant4 =
    minor(0, 1, 0, 1) * minor(2, 3, 2, 3) -
    minor(0, 1, 0, 2) * minor(2, 3, 1, 3) +
    minor(0, 1, 0, 3) * minor(2, 3, 1, 2) +
    minor(0, 1, 1, 2) * minor(2, 3, 0, 3) -
    minor(0, 1, 1, 3) * minor(2, 3, 0, 2) +
    minor(0, 1, 2, 3) * minor(2, 3, 0, 1);
  if (determinant4 === 0n || determinant3 === 0n) return 0;
  const positive = determinant4 < 0n === determinant3 > 0n;
  // Rows are taken as stored, so a plane seen from its other side changes the sign once; the three others cancel out.
  return positive !== ((plane & 1) === 1) ? 1 : -1;
}
