import { stepAtDistance } from '../detail/switch-distance';
import type { Vector3 } from '../model/vector';
import type { Pocket } from '../sight/sight-result';

/** Most things named as the causes of one pocket's cost. */
const MAX_CAUSES = 12;

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
  /** What it costs at each detail step, full first. */
  readonly steps: readonly { readonly triangles: number; readonly materials: number }[];
  /** Distance from which each step may show, metres. */
  readonly distances: readonly number[];
  /** Index of its stratum. */
  readonly stratum: number;
  /** Drawn apart from those of its piece that are not. */
  readonly mirrored?: true;
  /** Another part of the block before it, with a material of its own: no object by itself. */
  readonly isPart?: true;
}

/** Things and where they are. */
export interface SeenScene {
  readonly things: readonly Thing[];
  /** Six numbers a thing: min xyz, max xyz, metres. */
  readonly bounds: Float64Array;
  readonly pockets: readonly Pick<Pocket, 'key' | 'bounds'>[];
  /** Numbers of the things in each pocket. */
  readonly inPocket: readonly (readonly number[])[];
  /** Number of the group of each pocket. */
  readonly groups: readonly number[];
}

interface SeenCount {
  readonly things: number;
  readonly triangles: number;
  readonly drawCalls: number;
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

/**
 * Things, triangles and draw calls that are seen all round from a pocket, each thing at the detail step of its distance from
 * the pocket's nearest point.
 * @param seen pockets of its visible set
 * @param stamp scratch, one entry a thing, kept between calls
 */
export function countSeen(pocket: number, seen: readonly number[], scene: SeenScene, stamp: Int32Array): SeenCount {
  const { things, inPocket } = scene;
  let count = 0;
  let triangles = 0;
  let drawCalls = 0;
  const drawn = new Set<string>();
  for (const other of seen) {
    for (const i of inPocket[other]) {
      const thing = things[i];
      const step = stepSeen(pocket, i, scene);
      const key = drawCallKey(thing, step, scene.groups[other]);
      if (!drawn.has(key)) {
        drawn.add(key);
        drawCalls += thing.steps[step].materials;
      }
      if (stamp[i] === pocket) continue;
      stamp[i] = pocket;
      if (!thing.isPart) count++;
      triangles += thing.steps[step].triangles;
    }
  }
  return { things: count, triangles, drawCalls };
}

/** A pocket's figures opened to their parts: by stratum and by cause. */
export function describePocket(
  pocket: number,
  seen: readonly number[],
  scene: SeenScene,
  strata: readonly string[],
  count: SeenCount,
): PocketFigures {
  const { key, bounds } = scene.pockets[pocket];
  const causes = new Map<string, { -readonly [K in keyof CostCause]: CostCause[K] }>();
  const byStratum = strata.map((stratum) => ({ stratum, triangles: 0, drawCalls: 0 }));
  const drawn = new Set<string>();
  const seenThings = new Set<number>();
  for (const other of seen) {
    for (const i of scene.inPocket[other]) {
      const thing = scene.things[i];
      const { what, id, name, stratum } = thing;
      const step = stepSeen(pocket, i, scene);
      const { triangles, materials } = thing.steps[step];
      let cause = causes.get(`${what} ${id}`);
      if (!cause) causes.set(`${what} ${id}`, (cause = { what, id, name, count: 0, triangles: 0, drawCalls: 0 }));
      // A draw call that several strata share is counted with the lowest that needs it.
      const call = drawCallKey(thing, step, scene.groups[other]);
      if (!drawn.has(call)) {
        drawn.add(call);
        byStratum[stratum].drawCalls += materials;
        cause.drawCalls += materials;
      }
      if (seenThings.has(i)) continue;
      seenThings.add(i);
      cause.count += 1;
      cause.triangles += triangles;
      byStratum[stratum].triangles += triangles;
    }
  }
  return {
    pocket,
    key,
    middle: [
      (bounds.min[0] + bounds.max[0]) / 2,
      (bounds.min[1] + bounds.max[1]) / 2,
      (bounds.min[2] + bounds.max[2]) / 2,
    ],
    ...count,
    strata: byStratum,
    causes: [...causes.values()]
      .sort((a, b) => b.triangles - a.triangles || (a.id < b.id ? -1 : 1))
      .slice(0, MAX_CAUSES),
  };
}

function drawCallKey({ what, id, mirrored }: Thing, step: number, group: number): string {
  return what === 'piece' ? `${id}\u0000${step}${mirrored ? ' mirrored' : ''}` : `${id}\u0000${group} blocks`;
}

/** The detail step of a thing as seen from a pocket's nearest point. */
function stepSeen(pocket: number, thing: number, { things, bounds, pockets }: SeenScene): number {
  const { distances } = things[thing];
  if (distances.length === 1) return 0;
  const { min, max } = pockets[pocket].bounds;
  let squared = 0;
  for (let k = 0; k < 3; k++) {
    const gap = Math.max(0, min[k] - bounds[thing * 6 + 3 + k], bounds[thing * 6 + k] - max[k]);
    squared += gap * gap;
  }
  return stepAtDistance(distances, Math.sqrt(squared));
}
