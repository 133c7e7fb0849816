import { sidesOfCorners } from '../geometry/plane-polygon';
import type { PlaneRef, PlaneTable } from '../geometry/plane-table';
import { boxPolyhedron, clipPolyhedron, sidesOfPolyhedron, type Polyhedron } from '../geometry/polyhedron';
import type { Box3 } from '../model/vector';

/** One empty leaf of the partition. */
export interface EmptyLeaf {
  /** Lattice cell as 'x,y,z'. */
  readonly cell: string;
  readonly solid: Polyhedron;
}

/** A block, or what is left of it inside a node, with the block's own planes that still cut the node. */
interface Fragment {
  readonly solid: Polyhedron;
  readonly own: readonly PlaneRef[];
}

/** A divider's plane and the upright rectangle that it acts within. */
export interface DividerPlane {
  readonly plane: PlaneRef;
  /** Planes of its four sides; the rectangle is inside them. */
  readonly sides: readonly PlaneRef[];
}

/** Planes weighed against each other at one node, at most. */
const MAX_CANDIDATES = 24;
/** What one block cut in two costs, in blocks of imbalance. */
const CUT_COST = 6;

/**
 * Splits the bounds into convex leaves that are wholly empty or wholly inside a block: first by a fixed lattice in the
 * level's frame, then by dividers, then by the planes of the blocks themselves. All decisions are exact.
 *
 * Sources: Fuchs, Kedem and Naylor, On visible surface generation by a priori tree structures, 1980 (planes of the
 * input as splitters); Naylor, Amanatides and Thibault, Merging BSP trees yields polyhedral set operations, 1990
 * (solids as trees). Differs in: a leaf is solid when it lies inside any one block, so blocks may overlap freely.
 */
export function partition(
  table: PlaneTable,
  solids: readonly Polyhedron[],
  dividers: readonly DividerPlane[],
  bounds: Box3,
  latticeMetres: number,
  check: () => void,
  progress: (fraction: number) => void,
): EmptyLeaf[] {
  const leaves: EmptyLeaf[] = [];
  const cells = latticeCells(bounds, latticeMetres);
  cells.forEach(({ cell, box }, i) => {
    progress(i / cells.length);
    const root = boxPolyhedron(table, box);
    const planes = root.faces.map((face) => face.support);
    const fragments: Fragment[] = [];
    for (const solid of solids) {
      if (!boundsMeet(solid.bounds, root.bounds)) continue;
      let rest: Polyhedron | undefined = solid;
      for (const plane of planes) rest = rest && clipPolyhedron(table, rest, plane);
      if (rest) fragments.push({ solid: rest, own: ownPlanes(rest, solid) });
    }
    split(table, root, fragments, dividers, check, (solid) => leaves.push({ cell, solid }));
  });
  return leaves;
}

function split(
  table: PlaneTable,
  node: Polyhedron,
  fragments: readonly Fragment[],
  dividers: readonly DividerPlane[],
  check: () => void,
  emit: (leaf: Polyhedron) => void,
): void {
  check();
  const crossing = dividers.filter(
    ({ plane, sides }) => sidesOfPolyhedron(table, node, plane) === 3 && rectangleMeets(table, node, plane, sides),
  );
  let plane: PlaneRef;
  if (crossing.length > 0) {
    plane = crossing[0].plane;
  } else {
    if (fragments.length === 0) {
      emit(node);
      return;
    }
    // Without a plane of its own that cuts the node, a fragment fills it.
    if (fragments.some(({ own }) => own.length === 0)) return;
    plane = choosePlane(table, fragments);
  }
  for (const side of [plane, plane ^ 1]) {
    const half = clipPolyhedron(table, node, side);
    if (!half) continue;
    const kept: Fragment[] = [];
    for (const fragment of fragments) {
      const rest = clipPolyhedron(table, fragment.solid, side);
      if (!rest) continue;
      const own = fragment.own.filter((ref) => ref >> 1 !== plane >> 1);
      kept.push({
        solid: rest,
        own: rest === fragment.solid ? own : own.filter((ref) => rest.faces.some((face) => face.support === ref)),
      });
    }
    split(table, half, kept, crossing.slice(1), check, emit);
  }
}

/** Of the planes that carry most face area, the one that balances best with the fewest cuts. */
function choosePlane(table: PlaneTable, fragments: readonly Fragment[]): PlaneRef {
  const area = new Map<number, number>();
  for (const { solid, own } of fragments) {
    for (const ref of own) {
      const face = solid.faces.find(({ support }) => support === ref);
      if (face) area.set(ref >> 1, (area.get(ref >> 1) ?? 0) + spread(face.corners));
    }
  }
  const candidates = [...area.entries()].sort((a, b) => b[1] - a[1] || a[0] - b[0]).slice(0, MAX_CANDIDATES);
  if (candidates.length === 1 || fragments.length === 1) return candidates[0][0] * 2;
  const most = candidates[0][1];
  let best = candidates[0][0];
  let bestCost = Infinity;
  for (const [index, weight] of candidates) {
    let inside = 0;
    let outside = 0;
    let cut = 0;
    for (const { solid } of fragments) {
      const seen = sidesOfPolyhedron(table, solid, index * 2);
      if (seen === 1) inside++;
      else if (seen === 2) outside++;
      else cut++;
    }
    const cost = cut * CUT_COST + Math.abs(inside - outside) - (weight / most) * 0.5 * fragments.length;
    if (cost < bestCost) {
      bestCost = cost;
      best = index;
    }
  }
  return best * 2;
}

/** A cheap measure of a polygon's size: the product of its two largest extents. */
function spread(corners: readonly number[]): number {
  const x = extentAlong(corners, 0);
  const y = extentAlong(corners, 1);
  const z = extentAlong(corners, 2);
  return Math.max(x * y, y * z, x * z);
}

function extentAlong(corners: readonly number[], k: number): number {
  let low = Infinity;
  let high = -Infinity;
  for (let i = k; i < corners.length; i += 3) {
    if (corners[i] < low) low = corners[i];
    if (corners[i] > high) high = corners[i];
  }
  return high - low;
}

function ownPlanes(rest: Polyhedron, whole: Polyhedron): PlaneRef[] {
  const of = new Set(whole.faces.map((face) => face.support));
  return rest.faces.map((face) => face.support).filter((ref) => of.has(ref));
}

/** Whether the rectangle that a divider acts within reaches into a node that its plane splits. */
function rectangleMeets(table: PlaneTable, node: Polyhedron, plane: PlaneRef, sides: readonly PlaneRef[]): boolean {
  const half = clipPolyhedron(table, node, plane);
  const cut = half?.faces.find((face) => face.support === plane);
  if (!half || !cut) return false;
  const scratch = new Int8Array(cut.edges.length);
  return sides.every((side) => (sidesOfCorners(table, cut, side, scratch) & 1) !== 0);
}

/** The cells of the lattice that the bounds touch, each cut to the bounds. The lattice's planes pass through multiples of its side. */
function latticeCells(bounds: Box3, side: number): { cell: string; box: Box3 }[] {
  const cuts = [0, 1, 2].map((k) => {
    const list: { index: number; low: number; high: number }[] = [];
    for (let index = Math.floor(bounds.min[k] / side); index * side < bounds.max[k]; index++) {
      const low = Math.max(bounds.min[k], index * side);
      const high = Math.min(bounds.max[k], (index + 1) * side);
      if (high - low > 1e-4) list.push({ index, low, high });
    }
    return list;
  });
  return cuts[0].flatMap((x) =>
    cuts[1].flatMap((y) =>
      cuts[2].map((z) => ({
        cell: `${x.index},${y.index},${z.index}`,
        box: { min: [x.low, y.low, z.low], max: [x.high, y.high, z.high] } as const,
      })),
    ),
  );
}

function boundsMeet(a: readonly number[], b: readonly number[]): boolean {
  return a[0] < b[3] && b[0] < a[3] && a[1] < b[4] && b[1] < a[4] && a[2] < b[5] && b[2] < a[5];
}
