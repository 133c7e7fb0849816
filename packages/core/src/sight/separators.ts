import { cutWindow, type Window } from './clip-window';

/** A corner this close to a plane counts as on it, metres: rounding of coordinates, nothing more. */
const ON_PLANE = 2e-10;
/** Planes through an edge and a corner that span less than this area are not looked at, square metres. */
const MIN_AREA = 1e-9;

/**
 * Cuts `target` by every plane that has `near` on one side and `far` on the other: a straight line through `near` and then
 * `far` stays on the far side from there on. Planes are moved outward by `slack`.
 * Source: Teller and Séquin, Visibility preprocessing for interactive walkthroughs, 1991, section 4.
 * @param spare two windows that may be written to
 * @returns what is left, undefined when nothing is
 */
export function cutBySeparators(
  near: Window,
  far: Window,
  target: Window,
  spare: readonly [Window, Window],
  slack: number,
): Window | undefined {
  const half = cutByEdges(near, far, target, spare, slack, 1);
  return half && cutByEdges(far, near, half, spare, slack, -1);
}

/**
 * One half of it: for each edge of `edges` the plane through it and the corner of `corners` that is tangent to it, the one
 * that no other corner lies beyond. A flat convex polygon lies on one side of any plane through its edge, so no other
 * corner can give a separating plane.
 * @param way 1 when the lines run from `edges` to `corners`, −1 when the other way
 */
function cutByEdges(
  edges: Window,
  corners: Window,
  target: Window,
  spare: readonly [Window, Window],
  slack: number,
  way: 1 | -1,
): Window | undefined {
  const e = edges.corners;
  const c = corners.corners;
  let rest: Window = target;
  for (let i = 0; i < edges.count; i++) {
    const a = i * 3;
    const b = i + 1 === edges.count ? 0 : a + 3;
    const ax = e[a];
    const ay = e[a + 1];
    const az = e[a + 2];
    const ex = e[b] - ax;
    const ey = e[b + 1] - ay;
    const ez = e[b + 2] - az;
    // A corner of `edges` off this edge tells on which side they lie.
    const off = ((i + 2) % edges.count) * 3;
    const ox = e[off] - ax;
    const oy = e[off + 1] - ay;
    const oz = e[off + 2] - az;
    let nx = 0;
    let ny = 0;
    let nz = 0;
    let found = false;
    for (let j = 0; j < corners.count * 3; j += 3) {
      const vx = c[j] - ax;
      const vy = c[j + 1] - ay;
      const vz = c[j + 2] - az;
      // The normal points away from `edges`; a corner on their side of the plane so far is a better tangent.
      if (found && nx * vx + ny * vy + nz * vz >= 0) continue;
      const px = ey * vz - ez * vy;
      const py = ez * vx - ex * vz;
      const pz = ex * vy - ey * vx;
      if (px * px + py * py + pz * pz < MIN_AREA * MIN_AREA) continue;
      const away = px * ox + py * oy + pz * oz > 0 ? -1 : 1;
      nx = px * away;
      ny = py * away;
      nz = pz * away;
      found = true;
    }
    if (!found) continue;
    const length = Math.sqrt(nx * nx + ny * ny + nz * nz);
    nx /= length;
    ny /= length;
    nz /= length;
    const d = nx * ax + ny * ay + nz * az;
    if (sideOf(edges, nx, ny, nz, d) !== 1 || sideOf(corners, nx, ny, nz, d) !== 2) continue;
    const into = rest === spare[0] ? spare[1] : spare[0];
    const cut = cutWindow(rest, into, nx * way, ny * way, nz * way, d * way, slack);
    if (!cut) return undefined;
    rest = cut;
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
