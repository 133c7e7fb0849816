import type { SightResult } from '../sight/sight-result';

type Point = readonly [number, number];

/**
 * Exact visible pairs of an extruded building, from the plan alone: two pockets see each other when one line stabs all
 * openings of a chain between them. A reference for tests: slow and simple.
 * @returns for each pocket the set of pockets seen, itself among them
 */
export function planStabbing(result: Pick<SightResult, 'pockets' | 'openings'>): Set<number>[] {
  const ways = result.pockets.map((): { to: number; left: Point; right: Point; line: string }[] => []);
  for (const { pockets, plane, polygon } of result.openings) {
    const across: Point = [-plane[2], plane[0]];
    let low: Point = [polygon[0], polygon[2]];
    let high: Point = low;
    const along = (p: Point): number => p[0] * across[0] + p[1] * across[1];
    for (let i = 0; i < polygon.length; i += 3) {
      const p: Point = [polygon[i], polygon[i + 2]];
      if (along(p) < along(low)) low = p;
      if (along(p) > along(high)) high = p;
    }
    const line = plane.map((v) => Math.round(Math.abs(v) * 1e6)).join();
    ways[pockets[0]].push({ to: pockets[1], left: high, right: low, line });
    ways[pockets[1]].push({ to: pockets[0], left: low, right: high, line });
  }
  return result.pockets.map((_pocket, start) => {
    const seen = new Set([start]);
    const walk = (pocket: number, lefts: Point[], rights: Point[], lastLine: string, chain: Set<number>): void => {
      seen.add(pocket);
      for (const { to, left, right, line } of ways[pocket]) {
        if (chain.has(to) || line === lastLine) continue;
        const nextLefts = [...lefts, left];
        const nextRights = [...rights, right];
        if (!isStabbed(nextLefts, nextRights)) continue;
        walk(to, nextLefts, nextRights, line, new Set([...chain, to]));
      }
    };
    for (const { to, left, right, line } of ways[start]) walk(to, [left], [right], line, new Set([start, to]));
    return seen;
  });
}

/** Whether some line has all left ends on its left or on it, and all right ends on its right or on it. */
function isStabbed(lefts: readonly Point[], rights: readonly Point[]): boolean {
  for (const l of lefts)
    for (const r of rights) {
      const dx = l[0] - r[0];
      const dy = l[1] - r[1];
      if (dx === 0 && dy === 0) continue;
      for (const way of [1, -1]) {
        const side = (p: Point): number => way * (dx * (p[1] - r[1]) - dy * (p[0] - r[0]));
        if (lefts.every((p) => side(p) >= -1e-9) && rights.every((p) => side(p) <= 1e-9)) return true;
      }
    }
  return false;
}
