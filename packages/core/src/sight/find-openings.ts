import { clipPolygon, type PlanePolygon } from '../geometry/plane-polygon';
import type { PlaneTable } from '../geometry/plane-table';
import type { Polyhedron } from '../geometry/polyhedron';

/** Where two solids meet face to face; `polygon.support` faces out of the first. */
export interface FaceMeeting {
  readonly first: number;
  readonly second: number;
  readonly polygon: PlanePolygon;
}

interface Facing {
  readonly owner: number;
  readonly face: PlanePolygon;
  /** Extent along two axes of the plane: low u, low v, high u, high v. */
  readonly extent: readonly [number, number, number, number];
}

/** Slack of the quick comparison of extents, metres. */
const SLACK = 1e-6;

/**
 * All pairs of solids that share part of a plane, with the shared polygon. Exact: a strip of any width is found, touching
 * along an edge only is not a meeting.
 * @param check called now and then, may throw to cancel
 */
export function findMeetings(table: PlaneTable, solids: readonly Polyhedron[], check: () => void): FaceMeeting[] {
  const byPlane = new Map<number, [Facing[], Facing[]]>();
  solids.forEach((solid, owner) => {
    for (const face of solid.faces) {
      const index = face.support >> 1;
      let sides = byPlane.get(index);
      if (!sides) byPlane.set(index, (sides = [[], []]));
      sides[face.support & 1].push({ owner, face, extent: extentOf(table, face) });
    }
  });
  const meetings: FaceMeeting[] = [];
  for (const index of [...byPlane.keys()].sort((a, b) => a - b)) {
    const [fronts, backs] = byPlane.get(index) as [Facing[], Facing[]];
    if (fronts.length === 0 || backs.length === 0) continue;
    backs.sort((a, b) => a.extent[0] - b.extent[0] || a.owner - b.owner);
    const widest = backs.reduce((most, back) => Math.max(most, back.extent[2] - back.extent[0]), 0);
    for (const front of fronts) {
      check();
      const [u0, v0, u1, v1] = front.extent;
      for (let k = firstFrom(backs, u0 - widest - SLACK); k < backs.length; k++) {
        const back = backs[k];
        if (back.extent[0] > u1 + SLACK) break;
        if (back.extent[2] < u0 - SLACK || back.extent[1] > v1 + SLACK || back.extent[3] < v0 - SLACK) continue;
        const polygon = intersectFaces(table, front.face, back.face);
        if (polygon) meetings.push({ first: front.owner, second: back.owner, polygon });
      }
    }
  }
  return meetings;
}

/** Index of the first facing whose low u is not under a value. */
function firstFrom(sorted: readonly Facing[], u: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle].extent[0] < u) low = middle + 1;
    else high = middle;
  }
  return low;
}

function intersectFaces(table: PlaneTable, a: PlanePolygon, b: PlanePolygon): PlanePolygon | undefined {
  let rest: PlanePolygon | undefined = a;
  for (const edge of b.edges) {
    if (!rest) return undefined;
    rest = clipPolygon(table, rest, edge);
  }
  return rest;
}

function extentOf(table: PlaneTable, face: PlanePolygon): [number, number, number, number] {
  const nx = Math.abs(table.normalX(face.support));
  const ny = Math.abs(table.normalY(face.support));
  const nz = Math.abs(table.normalZ(face.support));
  const [u, v] = nx >= ny && nx >= nz ? [1, 2] : ny >= nz ? [0, 2] : [0, 1];
  const extent: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  const c = face.corners;
  for (let i = 0; i < c.length; i += 3) {
    extent[0] = Math.min(extent[0], c[i + u]);
    extent[1] = Math.min(extent[1], c[i + v]);
    extent[2] = Math.max(extent[2], c[i + u]);
    extent[3] = Math.max(extent[3], c[i + v]);
  }
  return extent;
}
