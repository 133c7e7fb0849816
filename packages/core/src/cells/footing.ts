import type { RunContext } from '../context/run-context';
import { BoxTree } from '../spatial/box-tree';
import type { Carrier } from './carriers';
import type { WalkPath } from './walk-path';

/** Distance between two looks at what is underfoot, metres. */
export const FOOTING_METRES = 0.25;
/** Highest step that a walk goes up, metres. */
export const STEP_METRES = 0.6;
/** Tops within this of the highest one hold a foot as well, metres. */
const LEVEL_METRES = 0.05;
/** Bounds that no path comes near. */
const NOWHERE = new Array<number>(6).fill(1e12);

/** What holds the foot along a path. */
export interface Footing {
  /** Height of the floor at each look; the last one known where there is none. */
  readonly heights: Float64Array;
  /** Numbers of what holds the foot at each look; empty where the level has no floor. */
  readonly holding: readonly (readonly number[])[];
}

/**
 * Follows a path over what carries, all of it loaded. At each look the highest floor counts that is at most a step above the last.
 * @param carriers undefined for what holds nobody
 * @param floorMetres height at which the walk starts
 */
export function footing(
  carriers: readonly (Carrier | undefined)[],
  path: WalkPath,
  floorMetres: number,
  context: RunContext,
): Footing {
  const boxes = new Float64Array(carriers.length * 6);
  carriers.forEach((carrier, i) =>
    boxes.set(carrier ? [...carrier.bounds.min, ...carrier.bounds.max] : NOWHERE, i * 6),
  );
  const tree = new BoxTree(boxes);
  const looks = Math.floor(path.lengthMetres / FOOTING_METRES) + 1;
  const heights = new Float64Array(looks);
  const holding: number[][] = [];
  let floor = floorMetres;
  for (let look = 0; look < looks; look++) {
    if (look % 1024 === 0) context.checkCancelled();
    const [x, z] = path.at(look * FOOTING_METRES);
    const limit = floor + STEP_METRES;
    const below = tree.inBox([x, -Infinity, z], [x, limit, z]).sort((a, b) => a - b);
    const tops = below.flatMap((number) => {
      const top = carriers[number]?.floorAt(x, z, limit);
      return top === undefined ? [] : [{ number, top }];
    });
    if (tops.length > 0) floor = Math.max(...tops.map(({ top }) => top));
    heights[look] = floor;
    holding.push(tops.filter(({ top }) => top >= floor - LEVEL_METRES).map(({ number }) => number));
  }
  return { heights, holding };
}
