import { PlaneTable } from '../geometry/plane-table';
import { blockSolid } from '../geometry/block-solid';
import type { SightInput } from '../sight/sight-input';
import type { SightResult } from '../sight/sight-result';

type Point = readonly [number, number, number];
type Planes = readonly (readonly [number, number, number, number])[];

/** Shorter stretches of a sight line are not held against anyone, metres. */
const MIN_STRETCH = 1e-3;

/** The blocks of an input as plain planes, for tracing sight lines against them. */
export function blockPlanesOf(input: SightInput): { planes: Planes; bounds: readonly number[] }[] {
  return input.blocks.map((block) => {
    const table = new PlaneTable();
    const solid = blockSolid(table, block);
    return { planes: solid.faces.map(({ support }) => table.plane(support)), bounds: solid.bounds };
  });
}

/** The part of the segment from a to b (0 to 1) that lies inside all planes moved by `grow`; undefined when none. */
function stretchInside(planes: Planes, a: Point, b: Point, grow: number): [number, number] | undefined {
  let from = 0;
  let to = 1;
  for (const [nx, ny, nz, d] of planes) {
    const sa = nx * a[0] + ny * a[1] + nz * a[2] - d - grow;
    const sb = nx * b[0] + ny * b[1] + nz * b[2] - d - grow;
    if (sa > 0 && sb > 0) return undefined;
    if (sa > 0) from = Math.max(from, sa / (sa - sb));
    else if (sb > 0) to = Math.min(to, sa / (sa - sb));
  }
  return to > from ? [from, to] : undefined;
}

/** Whether a segment passes no block's inside. Touching is clear. */
export function isClear(blocks: readonly { planes: Planes; bounds: readonly number[] }[], a: Point, b: Point): boolean {
  return blocks.every(({ planes, bounds }) => {
    for (let k = 0; k < 3; k++) {
      if (Math.max(a[k], b[k]) < bounds[k] || Math.min(a[k], b[k]) > bounds[k + 3]) return true;
    }
    return !stretchInside(planes, a, b, -1e-9);
  });
}

/** Numbers of the pockets that a segment passes for at least a millimetre. */
export function pocketsAlong(result: Pick<SightResult, 'pockets'>, a: Point, b: Point): number[] {
  const length = distance(a, b);
  return result.pockets.flatMap(({ planes, bounds }, i) => {
    for (let k = 0; k < 3; k++) {
      if (Math.max(a[k], b[k]) < bounds.min[k] || Math.min(a[k], b[k]) > bounds.max[k]) return [];
    }
    const stretch = stretchInside(planes, a, b, 0);
    return stretch && (stretch[1] - stretch[0]) * length > MIN_STRETCH ? [i] : [];
  });
}

/** Points of an opening that sight lines are aimed through: its middle, near its corners, near the middles of its edges. */
export function aimPoints(polygon: readonly number[]): Point[] {
  const n = polygon.length / 3;
  const corner = (i: number): Point => [polygon[(i % n) * 3], polygon[(i % n) * 3 + 1], polygon[(i % n) * 3 + 2]];
  const middle: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < n; i++) corner(i).forEach((v, k) => (middle[k] += v / n));
  const toward = (p: Point): Point => [
    p[0] + (middle[0] - p[0]) * 1e-4,
    p[1] + (middle[1] - p[1]) * 1e-4,
    p[2] + (middle[2] - p[2]) * 1e-4,
  ];
  const points: Point[] = [middle];
  for (let i = 0; i < n; i++) {
    const a = corner(i);
    const b = corner(i + 1);
    points.push(toward(a), toward([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2]));
  }
  return points;
}

export interface Witnesses {
  /** Pairs 'a,b' with a < b that some clear sight line joins. */
  readonly pairs: Set<string>;
  readonly lines: number;
  readonly clear: number;
}

/** Aims sight lines from every opening of a pocket at every opening of each other pocket that may be seen. */
export function witnessPairs(
  input: SightInput,
  result: SightResult,
  mayBeSeen: (a: number) => readonly number[],
): Witnesses {
  const blocks = blockPlanesOf(input);
  const openingsOf = result.pockets.map((): number[] => []);
  result.openings.forEach(({ pockets }, o) => pockets.forEach((pocket) => openingsOf[pocket].push(o)));
  const points = result.openings.map(({ polygon }) => aimPoints(polygon));
  const pairs = new Set<string>();
  let lines = 0;
  let clear = 0;
  const aim = (a: number, b: number): void => {
    for (const from of openingsOf[a])
      for (const to of openingsOf[b]) {
        for (const p of points[from])
          for (const q of points[to]) {
            if (pairs.has(`${a},${b}`)) return;
            if (from === to) continue;
            // A little beyond both ends, so that the line enters both pockets.
            const long = (k: number): number => q[k] - p[k];
            const length = distance(p, q);
            // A line that lies in an opening's own plane runs along the faces of walls and passes through nothing.
            const crosses = (o: number): boolean => {
              const [nx, ny, nz] = result.openings[o].plane;
              return Math.abs(nx * long(0) + ny * long(1) + nz * long(2)) > 1e-6 * length;
            };
            if (length < 1e-9 || !crosses(from) || !crosses(to)) continue;
            const reach = 0.01 / length;
            const start: Point = [p[0] - long(0) * reach, p[1] - long(1) * reach, p[2] - long(2) * reach];
            const end: Point = [q[0] + long(0) * reach, q[1] + long(1) * reach, q[2] + long(2) * reach];
            lines++;
            if (!isClear(blocks, start, end)) continue;
            clear++;
            const along = pocketsAlong(result, start, end);
            for (const i of along) for (const j of along) if (i < j) pairs.add(`${i},${j}`);
          }
      }
  };
  for (let a = 0; a < result.pockets.length; a++) {
    for (const b of mayBeSeen(a)) if (b > a) aim(a, b);
  }
  return { pairs, lines, clear };
}

/** Witnessed pairs that a result does not call visible. */
export function missingPairs(visible: readonly (readonly number[])[], witnessed: ReadonlySet<string>): string[] {
  const sets = visible.map((list) => new Set(list));
  return [...witnessed].filter((pair) => {
    const [a, b] = pair.split(',').map(Number);
    return !sets[a].has(b) || !sets[b].has(a);
  });
}

function distance(a: Point, b: Point): number {
  const x = a[0] - b[0];
  const y = a[1] - b[1];
  const z = a[2] - b[2];
  return Math.sqrt(x * x + y * y + z * z);
}
