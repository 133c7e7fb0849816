import FlatQueue from 'flatqueue';
import { finding, type Finding } from '../findings';
import type { Vector3 } from '../model/vector';
import { waysOfPockets, wayTarget, type OpeningTable } from './opening-polygons';
import type { SightInput, SightSpawn } from './sight-input';

/** A spawn is looked for this far above its own point, so that one standing on a floor is not on the edge, metres. */
const ABOVE_FLOOR_METRES = 0.05;
/** Slack of finding a point in a pocket, metres. */
const INSIDE = 1e-4;

export interface ClosurePocket {
  readonly planes: readonly (readonly [number, number, number, number])[];
  /** Middle of a face of it that lies on the level's bounds, null when none does. */
  readonly exit: Vector3 | null;
}

export interface Closure {
  /** 1 for each pocket that can be reached from a spawn. */
  readonly reached: Uint8Array;
  readonly closed: boolean;
  readonly wayOut: readonly Vector3[] | null;
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
          message: `A spawn at ${spawn.position.map((v) => Math.round(v * 100) / 100).join(', ')} stands inside a block or beyond the bounds`,
          why: 'A player would start stuck, and the closure check cannot start from it.',
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
        why: 'Nothing says where play is, so every open part counts as reached and leaks cannot be told.',
      }),
    );
    return { reached: new Uint8Array(pockets.length).fill(1), closed: true, wayOut: null, findings };
  }
  const { reached, out } = flood(pockets, openings, starts);
  const wayOut = input.openSky ? null : out;
  if (wayOut) {
    findings.push(
      finding({
        code: 'LEAK',
        desk: 'sight',
        severity: 'error',
        subject: 'level',
        place: { position: wayOut[wayOut.length - 1], line: wayOut },
        message: 'The level is not closed: there is a way from a spawn to the outside',
        why: 'All that lies outside counts as seen from inside, and a player may fall out.',
      }),
    );
  }
  return { reached, closed: wayOut === null, wayOut, findings };
}

/** The pocket that holds a point, −1 when none does. */
export function pocketAt(
  pockets: readonly { readonly planes: readonly (readonly [number, number, number, number])[] }[],
  point: Vector3,
): number {
  return pockets.findIndex(({ planes }) =>
    planes.every(([nx, ny, nz, d]) => nx * point[0] + ny * point[1] + nz * point[2] - d <= INSIDE),
  );
}

/** Shortest ways over the middles of openings (Dijkstra 1959); `out` is the shortest that ends at the bounds. */
function flood(
  pockets: readonly ClosurePocket[],
  openings: OpeningTable,
  starts: readonly { readonly pocket: number; readonly spawn: SightSpawn }[],
): { reached: Uint8Array; out: Vector3[] | null } {
  const ways = waysOfPockets(openings, pockets.length);
  const reached = new Uint8Array(pockets.length);
  const best = new Float64Array(pockets.length).fill(Infinity);
  const entry: Vector3[] = [];
  const before = new Int32Array(pockets.length).fill(-1);
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
    const exit = pockets[pocket].exit;
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
      queue.push(next, length);
    }
  }
  if (last < 0) return { reached, out: null };
  const out: Vector3[] = [pockets[last].exit as Vector3];
  for (let pocket = last; pocket >= 0; pocket = before[pocket]) out.push(entry[pocket]);
  return { reached, out: out.reverse() };
}

function distance(a: Vector3, b: Vector3): number {
  const x = a[0] - b[0];
  const y = a[1] - b[1];
  const z = a[2] - b[2];
  return Math.sqrt(x * x + y * y + z * z);
}
