import earcut from 'earcut';
import type { PlanPoint } from '../model/vector';

/** Sine below which two edges are one line. */
const STRAIGHT_SINE = 1e-9;

/**
 * Cuts an outline into convex parts without gaps or overlaps.
 * @param outline corners in cyclic order, either way round, metres, finite
 * @returns the parts, each counter-clockwise in (x, z) and with corners that turn; nothing for an outline without area or one that crosses itself
 * Cost: O(n²) for n corners. Order: parts come as their first triangles do.
 * Source: ears as in Eberly, Triangulation by Ear Clipping, 2002 (the earcut library); parts joined across diagonals as in
 * Hertel and Mehlhorn, Fast Triangulation of Simple Polygons, 1983: at most four times as many as there must be.
 */
export function convexParts(outline: readonly PlanPoint[]): PlanPoint[][] {
  if (outline.length < 3 || crossesItself(outline)) return [];
  const triangles = earcut(outline.flat());
  const parts: number[][] = [];
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = triangles.slice(i, i + 3);
    const turn = turnAt(outline, a, b, c);
    if (turn !== 0) parts.push(turn > 0 ? [a, b, c] : [a, c, b]);
  }
  for (let i = 0; i < parts.length; i++) {
    for (let j = i + 1; j < parts.length; j++) {
      const joined = joinedParts(outline, parts[i], parts[j]);
      if (!joined) continue;
      parts[i] = joined;
      parts.splice(j, 1);
      // What did not fit before may fit now.
      j = i;
    }
  }
  return parts
    .map((part) => withoutStraight(outline, part).map((at) => outline[at]))
    .filter(({ length }) => length > 2);
}

/** Whether two edges of an outline that are not neighbours touch, or two neighbours fold back over each other. */
export function crossesItself(outline: readonly PlanPoint[]): boolean {
  const n = outline.length;
  const at = (i: number): PlanPoint => outline[i % n];
  for (let i = 0; i < n; i++) {
    const [ax, az] = [at(i + 1)[0] - at(i)[0], at(i + 1)[1] - at(i)[1]];
    const [bx, bz] = [at(i + 2)[0] - at(i + 1)[0], at(i + 2)[1] - at(i + 1)[1]];
    if (ax * bz - az * bx === 0 && ax * bx + az * bz < 0) return true;
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      if (touch(at(i), at(i + 1), at(j), at(j + 1))) return true;
    }
  }
  return false;
}

function side([ax, az]: PlanPoint, [bx, bz]: PlanPoint, [px, pz]: PlanPoint): number {
  return Math.sign((bx - ax) * (pz - az) - (bz - az) * (px - ax));
}

function touch(a: PlanPoint, b: PlanPoint, c: PlanPoint, d: PlanPoint): boolean {
  const [ac, ad, ca, cb] = [side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)];
  if (ac * ad < 0 && ca * cb < 0) return true;
  const within = (from: PlanPoint, to: PlanPoint, p: PlanPoint): boolean =>
    Math.min(from[0], to[0]) <= p[0] &&
    p[0] <= Math.max(from[0], to[0]) &&
    Math.min(from[1], to[1]) <= p[1] &&
    p[1] <= Math.max(from[1], to[1]);
  return (
    (ac === 0 && within(a, b, c)) ||
    (ad === 0 && within(a, b, d)) ||
    (ca === 0 && within(c, d, a)) ||
    (cb === 0 && within(c, d, b))
  );
}

/** Above 0 where the way from a over b to c turns counter-clockwise in (x, z); 0 where it hardly turns. */
function turnAt(outline: readonly PlanPoint[], a: number, b: number, c: number): number {
  const [ux, uz] = [outline[b][0] - outline[a][0], outline[b][1] - outline[a][1]];
  const [vx, vz] = [outline[c][0] - outline[b][0], outline[c][1] - outline[b][1]];
  const turn = ux * vz - uz * vx;
  return turn * turn <= STRAIGHT_SINE * STRAIGHT_SINE * (ux * ux + uz * uz) * (vx * vx + vz * vz) ? 0 : turn;
}

/** Two parts as one where they have an edge in common and are convex together. */
function joinedParts(
  outline: readonly PlanPoint[],
  first: readonly number[],
  second: readonly number[],
): number[] | undefined {
  for (let i = 0; i < first.length; i++) {
    const [from, to] = [first[i], first[(i + 1) % first.length]];
    const j = second.indexOf(to);
    if (j < 0 || second[(j + 1) % second.length] !== from) continue;
    const rest = [...second.slice(j), ...second.slice(0, j)].slice(2);
    const joined = [...first.slice(0, i + 1), ...rest, ...first.slice(i + 1)];
    const n = joined.length;
    return joined.every((b, k) => turnAt(outline, joined[(k + n - 1) % n], b, joined[(k + 1) % n]) >= 0)
      ? joined
      : undefined;
  }
  return undefined;
}

function withoutStraight(outline: readonly PlanPoint[], part: readonly number[]): number[] {
  const kept = [...part];
  for (let i = kept.length - 1; i >= 0 && kept.length > 2; i--) {
    const n = kept.length;
    if (turnAt(outline, kept[(i + n - 1) % n], kept[i], kept[(i + 1) % n]) === 0) kept.splice(i, 1);
  }
  return kept;
}
