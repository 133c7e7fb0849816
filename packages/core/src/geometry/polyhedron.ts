import type { Box3 } from '../model/vector';
import { clipPolygon, planePolygon, sidesOfCorners, type PlanePolygon } from './plane-polygon';
import type { PlaneRef, PlaneTable } from './plane-table';

/** A bounded convex solid as its faces; a face's support is the plane with the outward normal. */
export interface Polyhedron {
  readonly faces: readonly PlanePolygon[];
  /** min x, y, z, max x, y, z of its corners; metres, rounded outward by nothing. */
  readonly bounds: readonly number[];
}

/** Half the side of the cube that polygons are cut from, metres. */
const WORLD_METRES = 1048576;

/** The polygon of a plane inside the world cube, bounded by the world planes across its steepest axis. */
function wholePlane(table: PlaneTable, plane: PlaneRef, world: readonly PlaneRef[]): PlanePolygon {
  const x = Math.abs(table.normalX(plane));
  const y = Math.abs(table.normalY(plane));
  const z = Math.abs(table.normalZ(plane));
  const [u, v] = x >= y && x >= z ? [2, 4] : y >= z ? [4, 0] : [0, 2];
  return planePolygon(table, plane, [world[u], world[v], world[u + 1], world[v + 1]]);
}

/**
 * The solid inside all `planes`, or undefined when they enclose nothing.
 * Planes that touch no face are left out of the result.
 * @returns `bounded: false` when a face reaches the world's edge, a cube of ±1,048,576 m
 */
export function polyhedronFromPlanes(
  table: PlaneTable,
  planes: readonly PlaneRef[],
): { solid: Polyhedron; bounded: boolean } | undefined {
  const world = table.worldSides(WORLD_METRES);
  const own = [...new Set(planes)];
  const faces: PlanePolygon[] = [];
  let bounded = true;
  for (const plane of own) {
    if (own.includes(plane ^ 1)) return undefined;
    let face: PlanePolygon | undefined = wholePlane(table, plane, world);
    for (const other of own) {
      if (other === plane) continue;
      face = clipPolygon(table, face, other);
      if (!face) break;
    }
    if (!face) continue;
    if (face.edges.some((edge) => world.includes(edge))) bounded = false;
    faces.push(face);
  }
  if (faces.length < 4) return faces.length > 0 && !bounded ? { solid: polyhedron(faces), bounded } : undefined;
  return { solid: polyhedron(faces), bounded };
}

/** The solid of an upright box. Metres; each side must have a length. */
export function boxPolyhedron(table: PlaneTable, box: Box3): Polyhedron {
  const { min, max } = box;
  const planes = [
    table.add(1, 0, 0, ...max),
    table.add(-1, 0, 0, ...min),
    table.add(0, 1, 0, ...max),
    table.add(0, -1, 0, ...min),
    table.add(0, 0, 1, ...max),
    table.add(0, 0, -1, ...min),
  ];
  const around = [
    [2, 4, 3, 5],
    [4, 0, 5, 1],
    [0, 2, 1, 3],
  ];
  return polyhedron(
    planes.map((plane, k) =>
      planePolygon(
        table,
        plane,
        around[k >> 1].map((e) => planes[e]),
      ),
    ),
  );
}

const scratchSides = new Int8Array(4096);

/** Which parts of a solid lie strictly inside (bit 1) and strictly outside (bit 2) of a plane. Exact. */
export function sidesOfPolyhedron(table: PlaneTable, solid: Polyhedron, plane: PlaneRef): number {
  const quick = sidesOfBounds(table, solid.bounds, plane);
  if (quick !== 0) return quick;
  let seen = 0;
  for (const face of solid.faces) {
    if (face.support >> 1 === plane >> 1) {
      return face.support === plane ? 1 : 2;
    }
    seen |= sidesOfCorners(table, face, plane, scratchSides);
    if (seen === 3) return 3;
  }
  return seen;
}

/** As `sidesOfPolyhedron` by the bounds alone: 1 or 2 when certain, 0 when a closer look is needed. */
function sidesOfBounds(table: PlaneTable, b: readonly number[], plane: PlaneRef): number {
  const nx = table.normalX(plane);
  const ny = table.normalY(plane);
  const nz = table.normalZ(plane);
  const d = table.offset(plane);
  const margin = 1e-5;
  const high = (nx > 0 ? b[3] : b[0]) * nx + (ny > 0 ? b[4] : b[1]) * ny + (nz > 0 ? b[5] : b[2]) * nz - d;
  if (high < -margin) return 1;
  const low = (nx > 0 ? b[0] : b[3]) * nx + (ny > 0 ? b[1] : b[4]) * ny + (nz > 0 ? b[2] : b[5]) * nz - d;
  return low > margin ? 2 : 0;
}

/**
 * The part of a solid on the inner side of a plane; the solid itself when nothing is cut off, undefined when nothing
 * with an inside is left. Never rounds.
 */
export function clipPolyhedron(table: PlaneTable, solid: Polyhedron, plane: PlaneRef): Polyhedron | undefined {
  const seen = sidesOfPolyhedron(table, solid, plane);
  if (seen === 1) return solid;
  if (seen !== 3) return undefined;
  const kept: PlanePolygon[] = [];
  const touching: PlaneRef[] = [];
  for (const face of solid.faces) {
    const faceSeen = sidesOfCorners(table, face, plane, scratchSides);
    if (faceSeen === 2 || faceSeen === 0) {
      touching.push(face.support);
      continue;
    }
    const onPlane = scratchSides.subarray(0, face.edges.length).includes(0);
    if (faceSeen === 3 || onPlane) touching.push(face.support);
    const rest = faceSeen === 1 ? face : clipPolygon(table, face, plane);
    if (rest) kept.push(rest);
  }
  let cap: PlanePolygon | undefined = wholePlane(table, plane, table.worldSides(WORLD_METRES));
  for (const support of touching) {
    cap = cap && clipPolygon(table, cap, support);
  }
  if (cap) kept.push(cap);
  return polyhedron(kept);
}

/** Both parts of a solid that a plane splits; `inside` is where n·p ≤ d. */
export function splitPolyhedron(
  table: PlaneTable,
  solid: Polyhedron,
  plane: PlaneRef,
): { inside: Polyhedron | undefined; outside: Polyhedron | undefined } {
  return { inside: clipPolyhedron(table, solid, plane), outside: clipPolyhedron(table, solid, plane ^ 1) };
}

/** Corners of a face in order, counter-clockwise seen from outside; xyz triples, metres. */
export function faceCorners(table: PlaneTable, face: PlanePolygon): Float64Array {
  const c = face.corners;
  const n = face.edges.length;
  let area = 0;
  const nx = table.normalX(face.support);
  const ny = table.normalY(face.support);
  const nz = table.normalZ(face.support);
  for (let i = 1; i + 1 < n; i++) {
    const ux = c[i * 3] - c[0];
    const uy = c[i * 3 + 1] - c[1];
    const uz = c[i * 3 + 2] - c[2];
    const vx = c[i * 3 + 3] - c[0];
    const vy = c[i * 3 + 4] - c[1];
    const vz = c[i * 3 + 5] - c[2];
    area += (uy * vz - uz * vy) * nx + (uz * vx - ux * vz) * ny + (ux * vy - uy * vx) * nz;
  }
  if (area >= 0) return Float64Array.from(c);
  const turned = new Float64Array(n * 3);
  for (let i = 0; i < n; i++) {
    turned.set(c.slice((n - 1 - i) * 3, (n - i) * 3), i * 3);
  }
  return turned;
}

function polyhedron(faces: readonly PlanePolygon[]): Polyhedron {
  const bounds = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (const face of faces) {
    const c = face.corners;
    for (let i = 0; i < c.length; i += 3) {
      for (let k = 0; k < 3; k++) {
        const value = c[i + k];
        if (value < bounds[k]) bounds[k] = value;
        if (value > bounds[k + 3]) bounds[k + 3] = value;
      }
    }
  }
  return { faces, bounds };
}
