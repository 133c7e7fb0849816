import { cutWindow, type Window } from './clip-window';

/** A corner this close to a plane counts as on it, metres: rounding of coordinates, nothing more. */
const ON_PLANE = 2e-10;
/** Planes through an edge and a corner that span less than this area are not looked at, square metres. */
const LEAST_AREA = 1e-9;

/**
 * Cuts `target` by every plane that has `near` on one side and `far` on the other: a straight line through `near` and then
 * `far` stays on the far side from there on. Planes are moved outward by `slack`.
 * Source: Teller and Séquin, Visibility preprocessing for interactive walkthroughs, 1991, section 4.
 * @param spare two windows that may be written to
 * @returns what is left, undefined when nothing is
 */
export function cutBySeparators(near: Window, far: Window, target: Window, spare: readonly [Window, Window], slack: number): Window | undefined {
  const half = cutByEdges(near, far, target, spare, slack, 1);
  return half && cutByEdges(far, near, half, spare, slack, -1);
}

/**
 * One half of it: planes through an edge of `edges` and a corner of `corners`.
 * @param way 1 when the lines run from `edges` to `corners`, −1 when the other way
 */
function cutByEdges(edges: Window, corners: Window, target: Window, spare: readonly [Window, Window], slack: number, way: 1 | -1): Window | undefined {
  const e = edges.corners;
  const c = corners.corners;
  let rest: Window = target;
  for (let i = 0; i < edges.count; i++) {
    const a = i * 3;
    const b = i + 1 === edges.count ? 0 : a + 3;
    const ex = e[b] - e[a];
    const ey = e[b + 1] - e[a + 1];
    const ez = e[b + 2] - e[a + 2];
    for (let j = 0; j < corners.count; j++) {
      const vx = c[j * 3] - e[a];
      const vy = c[j * 3 + 1] - e[a + 1];
      const vz = c[j * 3 + 2] - e[a + 2];
      let nx = ey * vz - ez * vy;
      let ny = ez * vx - ex * vz;
      let nz = ex * vy - ey * vx;
      const length = Math.sqrt(nx * nx + ny * ny + nz * nz);
      if (length < LEAST_AREA) continue;
      nx /= length;
      ny /= length;
      nz /= length;
      const d = nx * e[a] + ny * e[a + 1] + nz * e[a + 2];
      const sideOfEdges = sideOf(edges, nx, ny, nz, d);
      if (sideOfEdges === 0 || sideOfEdges === 3) continue;
      const sideOfCorners = sideOf(corners, nx, ny, nz, d);
      if (sideOfCorners + sideOfEdges !== 3) continue;
      // `to` is where the lines go: 2 (positive) keeps the positive side.
      const to = way === 1 ? sideOfCorners : sideOfEdges;
      const sign = to === 2 ? 1 : -1;
      const into = rest === spare[0] ? spare[1] : spare[0];
      const cut = cutWindow(rest, into, nx * sign, ny * sign, nz * sign, d * sign, slack);
      if (!cut) return undefined;
      rest = cut;
    }
  }
  return rest;
}

/** 0 when all corners are on the plane, 1 when some are behind and none in front, 2 the other way, 3 when both. */
function sideOf(window: Window, nx: number, ny: number, nz: number, d: number): 0 | 1 | 2 | 3 {
  const c = window.corners;
  let seen = 0;
  for (let i = 0, at = 0; i < window.count; i++, at += 3) {
    const s = c[at] * nx + c[at + 1] * ny + c[at + 2] * nz - d;
    if (s < -ON_PLANE) seen |= 1;
    else if (s > ON_PLANE) seen |= 2;
    if (seen === 3) return 3;
  }
  return seen as 0 | 1 | 2;
}
