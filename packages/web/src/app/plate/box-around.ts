import type { Box3 } from '@stravel/core';

/** The box around boxes; undefined when there are none. */
export function boxAround(boxes: Iterable<Box3>): Box3 | undefined {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const box of boxes) {
    for (let k = 0; k < 3; k++) {
      min[k] = Math.min(min[k], box.min[k]);
      max[k] = Math.max(max[k], box.max[k]);
    }
  }
  return min[0] <= max[0] ? { min, max } : undefined;
}
