import type { Pocket } from './sight-result';

/** Bounds of things: six numbers each, min xyz and max xyz, metres. */
export type ThingBounds = Float64Array;

/** Things this close to a pocket touch it, metres. */
const TOUCH_METRES = 1e-3;

/**
 * The things of every pocket: a thing belongs to every pocket that its bounds touch.
 * @returns for each pocket the numbers of its things, ascending
 */
export function thingsOfPockets(
  pockets: readonly Pick<Pocket, 'planes' | 'bounds'>[],
  bounds: ThingBounds,
): number[][] {
  const count = bounds.length / 6;
  return pockets.map((pocket) => {
    const { min, max } = pocket.bounds;
    const list: number[] = [];
    for (let i = 0; i < count; i++) {
      const at = i * 6;
      if (
        bounds[at] > max[0] + TOUCH_METRES ||
        bounds[at + 3] < min[0] - TOUCH_METRES ||
        bounds[at + 1] > max[1] + TOUCH_METRES ||
        bounds[at + 4] < min[1] - TOUCH_METRES ||
        bounds[at + 2] > max[2] + TOUCH_METRES ||
        bounds[at + 5] < min[2] - TOUCH_METRES
      ) {
        continue;
      }
      if (touches(pocket.planes, bounds, at)) list.push(i);
    }
    return list;
  });
}

function touches(planes: Pocket['planes'], b: ThingBounds, at: number): boolean {
  for (const [nx, ny, nz, d] of planes) {
    const least =
      (nx > 0 ? b[at] : b[at + 3]) * nx + (ny > 0 ? b[at + 1] : b[at + 4]) * ny + (nz > 0 ? b[at + 2] : b[at + 5]) * nz;
    if (least - d > TOUCH_METRES) return false;
  }
  return true;
}
