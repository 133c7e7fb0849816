import { sidesOfCorners, type PlanePolygon } from '../geometry/plane-polygon';
import type { PlaneRef, PlaneTable } from '../geometry/plane-table';
import { polyhedronFromPlanes, type Polyhedron } from '../geometry/polyhedron';
import { findMeetings } from './find-openings';
import type { EmptyLeaf } from './partition';

const scratch = new Int8Array(4096);

/**
 * Joins neighbouring leaves whose union is convex, widest meeting first, until none is left. Leaves of different lattice
 * cells stay apart, so that a change in one cell never renames pockets of another; so do leaves that a divider parts.
 * @param isDivided whether a divider lies in a meeting @param check called now and then, may throw to cancel
 */
export function mergePockets(
  table: PlaneTable,
  leaves: readonly EmptyLeaf[],
  isDivided: (polygon: PlanePolygon) => boolean,
  check: () => void,
): EmptyLeaf[] {
  const current: (EmptyLeaf | undefined)[] = [...leaves];
  const meetings = findMeetings(
    table,
    leaves.map(({ solid }) => solid),
    check,
  )
    .filter(({ first, second, polygon }) => leaves[first].cell === leaves[second].cell && !isDivided(polygon))
    .map(({ first, second, polygon }) => ({ first, second, plane: polygon.support, size: extent(polygon) }))
    .sort((a, b) => b.size - a.size || a.first - b.first || a.second - b.second);
  const parent = leaves.map((_leaf, i) => i);
  const find = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  };
  let open = meetings;
  for (let merged = true; merged;) {
    merged = false;
    const left: typeof open = [];
    for (const meeting of open) {
      check();
      const a = find(meeting.first);
      const b = find(meeting.second);
      if (a === b) continue;
      const first = current[a] as EmptyLeaf;
      const second = current[b] as EmptyLeaf;
      const joined = joinConvex(table, first.solid, second.solid, meeting.plane);
      if (!joined) {
        left.push(meeting);
        continue;
      }
      const keep = Math.min(a, b);
      const drop = Math.max(a, b);
      parent[drop] = keep;
      current[keep] = { cell: first.cell, solid: joined };
      current[drop] = undefined;
      merged = true;
    }
    open = left;
  }
  return current.filter((leaf): leaf is EmptyLeaf => leaf !== undefined);
}

/**
 * The union of two solids on either side of a plane when it is convex: each must lie inside all other planes of the other.
 * Then the union is the intersection of those planes.
 */
function joinConvex(table: PlaneTable, a: Polyhedron, b: Polyhedron, plane: PlaneRef): Polyhedron | undefined {
  const planes: PlaneRef[] = [];
  for (const [one, other] of [
    [a, b],
    [b, a],
  ]) {
    for (const { support } of one.faces) {
      if (support >> 1 === plane >> 1) continue;
      if (!planes.includes(support)) {
        if (!liesInside(table, other, support)) return undefined;
        planes.push(support);
      }
    }
  }
  return polyhedronFromPlanes(table, planes)?.solid;
}

function liesInside(table: PlaneTable, solid: Polyhedron, plane: PlaneRef): boolean {
  const b = solid.bounds;
  const nx = table.normalX(plane);
  const ny = table.normalY(plane);
  const nz = table.normalZ(plane);
  const high =
    (nx > 0 ? b[3] : b[0]) * nx + (ny > 0 ? b[4] : b[1]) * ny + (nz > 0 ? b[5] : b[2]) * nz - table.offset(plane);
  if (high < -1e-5) return true;
  const low =
    (nx > 0 ? b[0] : b[3]) * nx + (ny > 0 ? b[1] : b[4]) * ny + (nz > 0 ? b[2] : b[5]) * nz - table.offset(plane);
  if (low > 1e-5) return false;
  return solid.faces.every((face) => (sidesOfCorners(table, face, plane, scratch) & 2) === 0);
}

/** Square of the polygon's largest diagonal: enough to put wide meetings first. */
function extent(polygon: PlanePolygon): number {
  const c = polygon.corners;
  let most = 0;
  for (let i = 3; i < c.length; i += 3) {
    const x = c[i] - c[0];
    const y = c[i + 1] - c[1];
    const z = c[i + 2] - c[2];
    most = Math.max(most, x * x + y * y + z * z);
  }
  return most;
}
