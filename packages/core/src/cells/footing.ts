import type { RunContext } from '../context/run-context';
import { blockSurfaceIfAny } from '../geometry/block-solid';
import { turnMatrix, turnVector } from '../geometry/turn';
import type { Block } from '../model/block';
import { BoxTree } from '../spatial/box-tree';
import type { WalkPath } from './walk-path';

/** Distance between two looks at what is underfoot, metres. */
export const FOOTING_METRES = 0.25;
/** Highest step that a walk goes up, metres. */
const STEP_METRES = 0.6;
/** Tops within this of the highest one hold a foot as well, metres. */
const LEVEL_METRES = 0.05;
/** Bounds that no path comes near. */
const NOWHERE = new Array<number>(6).fill(1e12);

/** What holds the foot along a path. */
export interface Footing {
  /** Height of the floor at each look; the last one known where there is none. */
  readonly heights: Float64Array;
  /** Numbers of the blocks that hold the foot at each look; empty where the level has no floor. */
  readonly blocks: readonly (readonly number[])[];
}

/**
 * Follows a path over the tops of blocks, all of them loaded. At each look the highest top counts that is at most a step
 * above the last floor.
 * @param floorMetres height at which the walk starts
 */
export function footing(blocks: readonly Block[], path: WalkPath, floorMetres: number, context: RunContext): Footing {
  const shapes = blocks.map(shapeOf);
  const boxes = new Float64Array(blocks.length * 6);
  shapes.forEach((shape, i) => boxes.set(shape?.bounds ?? NOWHERE, i * 6));
  const tree = new BoxTree(boxes);
  const looks = Math.floor(path.lengthMetres / FOOTING_METRES) + 1;
  const heights = new Float64Array(looks);
  const holding: number[][] = [];
  let floor = floorMetres;
  for (let look = 0; look < looks; look++) {
    if (look % 1024 === 0) context.checkCancelled();
    const [x, z] = path.at(look * FOOTING_METRES);
    const below = tree.inBox([x, -Infinity, z], [x, floor + STEP_METRES, z]).sort((a, b) => a - b);
    const tops = below.flatMap((block) => {
      const shape = shapes[block];
      const top = shape && topAt(shape.planes, x, z);
      return top !== undefined && top <= floor + STEP_METRES ? [{ block, top }] : [];
    });
    if (tops.length > 0) floor = Math.max(...tops.map(({ top }) => top));
    heights[look] = floor;
    holding.push(tops.filter(({ top }) => top >= floor - LEVEL_METRES).map(({ block }) => block));
  }
  return { heights, blocks: holding };
}

type Plane = readonly [number, number, number, number];

/** Undefined for a block that encloses nothing: it holds nobody. */
function shapeOf(block: Block): { planes: Plane[]; bounds: number[] } | undefined {
  const bounds = blockSurfaceIfAny(block)?.bounds;
  if (!bounds) return undefined;
  const m = turnMatrix(block.turn);
  const planes = block.planes.map(([nx, ny, nz, d]): Plane => {
    const n = turnVector(m, nx, ny, nz);
    return [n[0], n[1], n[2], d + n[0] * block.position[0] + n[1] * block.position[1] + n[2] * block.position[2]];
  });
  return { planes, bounds: [...bounds.min, ...bounds.max] };
}

/** Height of a solid's top over a point of the plan, undefined beside it. */
function topAt(planes: readonly Plane[], x: number, z: number): number | undefined {
  let low = -Infinity;
  let high = Infinity;
  for (const [nx, ny, nz, d] of planes) {
    const rest = d - nx * x - nz * z;
    if (ny > 1e-9) high = Math.min(high, rest / ny);
    else if (ny < -1e-9) low = Math.max(low, rest / ny);
    else if (rest < -1e-9) return undefined;
  }
  return low < high ? high : undefined;
}
