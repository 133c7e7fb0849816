import type { Vector3 } from '../model/vector';
import type { SightResult } from '../sight/sight-result';

/** Most things named as the causes of one pocket's cost. */
const MOST_CAUSES = 12;

/** One cause of a pocket's cost: all placements of a piece that are seen, or all blocks of a material. */
export interface CostCause {
  readonly what: 'piece' | 'blocks';
  /** Id of the piece, or name of the material. */
  readonly id: string;
  readonly name: string;
  readonly count: number;
  readonly triangles: number;
  readonly drawCalls: number;
}

export interface PocketFigures {
  readonly pocket: number;
  readonly key: string;
  readonly middle: Vector3;
  readonly things: number;
  readonly triangles: number;
  readonly drawCalls: number;
  /** What each stratum adds, in order of the stack; nothing left out. */
  readonly strata: readonly { readonly stratum: string; readonly triangles: number; readonly drawCalls: number }[];
  /** Largest first. */
  readonly causes: readonly CostCause[];
}

/** A block or placement as it is counted. */
export interface Thing {
  readonly what: 'piece' | 'blocks';
  readonly id: string;
  readonly name: string;
  readonly triangles: number;
  readonly materials: number;
  /** Index of its stratum. */
  readonly stratum: number;
}

/** Number of the group (lattice cell) of each pocket. */
export function pocketGroups(keys: readonly string[]): number[] {
  const numbers = new Map<string, number>();
  return keys.map((key) => {
    const cell = key.slice(0, key.lastIndexOf(':'));
    const known = numbers.get(cell) ?? numbers.size;
    numbers.set(cell, known);
    return known;
  });
}

/** Things, triangles and draw calls that are seen all round from a pocket. @param stamp scratch, one entry a thing, kept between calls */
export function countSeen(
  pocket: number,
  seen: readonly number[],
  inPocket: readonly (readonly number[])[],
  groups: readonly number[],
  things: readonly Thing[],
  stamp: Int32Array,
): { things: number; triangles: number; drawCalls: number } {
  let count = 0;
  let triangles = 0;
  let drawCalls = 0;
  const drawn = new Set<string>();
  for (const other of seen) {
    for (const i of inPocket[other]) {
      const thing = things[i];
      const key = thing.what === 'piece' ? thing.id : `${thing.id}\u0000${groups[other]}`;
      if (!drawn.has(key)) {
        drawn.add(key);
        drawCalls += thing.materials;
      }
      if (stamp[i] === pocket) continue;
      stamp[i] = pocket;
      count++;
      triangles += thing.triangles;
    }
  }
  return { things: count, triangles, drawCalls };
}

/** A pocket's figures opened to their parts: by stratum and by cause. */
export function describePocket(
  pocket: number,
  sight: SightResult,
  inPocket: readonly (readonly number[])[],
  groups: readonly number[],
  things: readonly Thing[],
  strata: readonly string[],
  count: number,
  triangles: number,
  drawCalls: number,
): PocketFigures {
  const { key, bounds } = sight.pockets[pocket];
  const causes = new Map<string, { what: 'piece' | 'blocks'; id: string; name: string; count: number; triangles: number; groups: Set<number>; materials: number }>();
  const byStratum = strata.map((stratum) => ({ stratum, triangles: 0, drawCalls: 0 }));
  const drawn = new Set<string>();
  const seenThings = new Set<number>();
  for (const other of sight.visible[pocket]) {
    for (const i of inPocket[other]) {
      const { what, id, name, triangles: cost, materials, stratum } = things[i];
      let cause = causes.get(`${what} ${id}`);
      if (!cause) causes.set(`${what} ${id}`, (cause = { what, id, name, count: 0, triangles: 0, groups: new Set(), materials }));
      cause.groups.add(what === 'blocks' ? groups[other] : 0);
      // A draw call that several strata share is counted with the lowest that needs it.
      const call = what === 'piece' ? id : `${id}\u0000${groups[other]}`;
      if (!drawn.has(call)) {
        drawn.add(call);
        byStratum[stratum].drawCalls += materials;
      }
      if (seenThings.has(i)) continue;
      seenThings.add(i);
      cause.count += 1;
      cause.triangles += cost;
      byStratum[stratum].triangles += cost;
    }
  }
  return {
    pocket,
    key,
    middle: [(bounds.min[0] + bounds.max[0]) / 2, (bounds.min[1] + bounds.max[1]) / 2, (bounds.min[2] + bounds.max[2]) / 2],
    things: count,
    triangles,
    drawCalls,
    strata: byStratum,
    causes: [...causes.values()]
      .map(({ groups: in_, materials, ...cause }) => ({ ...cause, drawCalls: in_.size * materials }))
      .sort((a, b) => b.triangles - a.triangles || (a.id < b.id ? -1 : 1))
      .slice(0, MOST_CAUSES),
  };
}
