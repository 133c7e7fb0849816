import FlatQueue from 'flatqueue';
import { finding, type Finding } from '../findings';
import type { Vector3 } from '../model/vector';
import { gapShape, middleOfPoints, OUTSIDE, type Gap, type GapShape, type Passage } from './gap';
import { waysOfPockets, wayTarget, type OpeningTable } from './opening-polygons';
import type { SightInput, SightSpawn } from './sight-input';
import type { Pocket } from './sight-result';

/** A spawn is looked for this far above its own point, so that one standing on a floor is not on the edge, metres. */
const ABOVE_FLOOR_METRES = 0.05;
/** Slack of finding a point in a pocket, metres. */
const INSIDE = 1e-4;

/** A face on the level's bounds. */
export interface ExitFace {
  /** Which of the bounds, 0 to 5. */
  readonly side: number;
  /** Corners in order, xyz triples. */
  readonly corners: ArrayLike<number>;
}

export interface ClosurePocket {
  readonly planes: readonly (readonly [number, number, number, number])[];
  /** Its faces on the level's bounds. */
  readonly exits: readonly ExitFace[];
}

export interface Closure {
  /** 1 for each pocket that can be reached from a spawn. */
  readonly reached: Uint8Array;
  readonly closed: boolean;
  readonly wayOut: readonly Vector3[] | null;
  /** The gap that the way out leads through. */
  readonly gap: GapShape | null;
  readonly findings: readonly Finding[];
}

/** Floods from the spawns and looks for a way to the outside. Without a spawn every pocket counts as reached. */
export function checkClosure(input: SightInput, pockets: readonly ClosurePocket[], openings: OpeningTable): Closure {
  const findings: Finding[] = [];
  const starts: { pocket: number; spawn: SightSpawn }[] = [];
  for (const spawn of input.spawns) {
    const pocket = pocketAt(pockets, [spawn.position[0], spawn.position[1] + ABOVE_FLOOR_METRES, spawn.position[2]]);
    if (pocket >= 0) starts.push({ pocket, spawn });
    else {
      findings.push(
        finding({
          code: 'SPAWN_IN_BLOCK',
          desk: 'sight',
          severity: 'error',
          subject: spawn.id,
          place: { item: spawn.id, position: spawn.position },
          message: `A spawn at ${spawn.position.map((v) => Math.round(v * 100) / 100).join(', ')} is inside a block or outside the edges`,
          why: 'A player would start stuck, and the check for ways out cannot start there.',
        }),
      );
    }
  }
  if (input.spawns.length === 0) {
    findings.push(
      finding({
        code: 'NO_SPAWN',
        desk: 'sight',
        severity: 'warning',
        subject: 'level',
        place: {},
        message: 'The level has no spawn',
        why: 'Without a spawn all open space counts as playable, and gaps cannot be found. Set a spawn.',
      }),
    );
    return { reached: new Uint8Array(pockets.length).fill(1), closed: true, wayOut: null, gap: null, findings };
  }
  const { reached, out, route } = flood(pockets, openings, starts);
  const wayOut = input.openSky ? null : out;
  const gap = wayOut && gapOf(route, starts, pockets, openings);
  return { reached, closed: wayOut === null, wayOut, gap, findings };
}

function gapOf(
  { passed, last }: Route,
  starts: readonly { readonly pocket: number }[],
  pockets: readonly ClosurePocket[],
  openings: OpeningTable,
): GapShape {
  const passages: Passage[] = Array.from({ length: openings.count }, (_unused, o) => ({
    first: openings.firsts[o],
    second: openings.seconds[o],
    plane: openings.planeNumbers[o],
    corners: openings.corners.subarray(openings.starts[o], openings.starts[o + 1]),
  }));
  let exit = -1;
  pockets.forEach(({ exits }, first) => {
    // The first face is the one that the way out ends at.
    if (first === last) exit = passages.length;
    for (const { side, corners } of exits) passages.push({ first, second: OUTSIDE, plane: -1 - side, corners });
  });
  return gapShape(
    starts.map(({ pocket }) => pocket),
    [...passed, exit],
    passages,
  );
}

/** @param gap as `describeGap` tells it */
export function wayOutFinding(wayOut: readonly Vector3[], gap: Gap): Finding {
  const middle = middleOfPoints(gap.polygons.flat());
  const [width, height] = gap.sizeMetres.map((value) => Math.round(value * 100) / 100);
  return finding({
    code: 'LEAK',
    desk: 'sight',
    severity: 'error',
    subject: 'level',
    place: { position: middle, line: wayOut },
    message: `Open to the outside: ${
      gap.closes ? 'closing the gap' : 'several ways lead out, the shortest through a gap'
    } of ${width} × ${height} m at ${middle.map((v) => Math.round(v * 100) / 100).join(', ')}${gap.closes ? ' would close it' : ''}`,
    why: 'Everything outside counts as visible, and players can fall out. Put a block into the gap.',
  });
}

/** The pocket that holds a point, −1 when none does. */
export function pocketAt(pockets: readonly Pick<Pocket, 'planes'>[], point: Vector3): number {
  return pockets.findIndex((pocket) => holdsPoint(pocket, point));
}

/** Whether a pocket holds a point; one on its border it does. */
export function holdsPoint({ planes }: Pick<Pocket, 'planes'>, point: Vector3): boolean {
  return planes.every(([nx, ny, nz, d]) => nx * point[0] + ny * point[1] + nz * point[2] - d <= INSIDE);
}

/** The openings that a way out passes, from the spawn on, and the pocket that it ends in, −1 when there is none. */
interface Route {
  readonly passed: readonly number[];
  readonly last: number;
}

/** Shortest ways over the middles of openings (Dijkstra 1959); `out` is the shortest that ends at the bounds. */
function flood(
  pockets: readonly ClosurePocket[],
  openings: OpeningTable,
  starts: readonly { readonly pocket: number; readonly spawn: SightSpawn }[],
): { reached: Uint8Array; out: Vector3[] | null; route: Route } {
  const ways = waysOfPockets(openings, pockets.length);
  const reached = new Uint8Array(pockets.length);
  const best = new Float64Array(pockets.length).fill(Infinity);
  const entry: Vector3[] = [];
  const before = new Int32Array(pockets.length).fill(-1);
  const through = new Int32Array(pockets.length).fill(-1);
  const queue = new FlatQueue<number>();
  for (const { pocket, spawn } of starts) {
    if (best[pocket] === 0) continue;
    best[pocket] = 0;
    entry[pocket] = spawn.position;
    queue.push(pocket, 0);
  }
  let shortest = Infinity;
  let last = -1;
  for (let pocket = queue.pop(); pocket !== undefined; pocket = queue.pop()) {
    if (reached[pocket]) continue;
    reached[pocket] = 1;
    const [face] = pockets[pocket].exits;
    const exit = face && middleOfPoints(face.corners);
    if (exit && best[pocket] + distance(entry[pocket], exit) < shortest) {
      shortest = best[pocket] + distance(entry[pocket], exit);
      last = pocket;
    }
    for (const way of ways[pocket]) {
      const next = wayTarget(openings, way);
      const middle: Vector3 = [
        openings.balls[(way >> 1) * 4],
        openings.balls[(way >> 1) * 4 + 1],
        openings.balls[(way >> 1) * 4 + 2],
      ];
      const length = best[pocket] + distance(entry[pocket], middle);
      if (reached[next] || length >= best[next]) continue;
      best[next] = length;
      entry[next] = middle;
      before[next] = pocket;
      through[next] = way >> 1;
      queue.push(next, length);
    }
  }
  const passed: number[] = [];
  if (last < 0) return { reached, out: null, route: { passed, last } };
  const out: Vector3[] = [middleOfPoints(pockets[last].exits[0].corners)];
  for (let pocket = last; pocket >= 0; pocket = before[pocket]) {
    out.push(entry[pocket]);
    if (through[pocket] >= 0) passed.push(through[pocket]);
  }
  return { reached, out: out.reverse(), route: { passed: passed.reverse(), last } };
}

function distance(a: Vector3, b: Vector3): number {
  const x = a[0] - b[0];
  const y = a[1] - b[1];
  const z = a[2] - b[2];
  return Math.sqrt(x * x + y * y + z * z);
}
