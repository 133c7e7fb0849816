import type { Box3, Vector3 } from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { boxAround } from './item-shapes';

/** The box around where blocks, placements and markers stand, whatever their size; undefined when there are none. */
export function roughBounds(strata: readonly StratumDocument[]): Box3 | undefined {
  const points: Vector3[] = [];
  for (const {
    tables: { block: blocks, marker: markers, placement: placements },
  } of strata) {
    for (const { position } of blocks.values()) points.push(position);
    for (const { position } of markers.values()) points.push(position);
    const low: [number, number, number] = [Infinity, Infinity, Infinity];
    const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
    for (let slot = 0; slot < placements.slotCount; slot++) {
      if (placements.idAt(slot) === undefined) continue;
      for (let k = 0; k < 3; k++) {
        const value = placements.numbers[slot * 9 + k];
        if (value < low[k]) low[k] = value;
        if (value > high[k]) high[k] = value;
      }
    }
    if (low[0] <= high[0]) points.push(low, high);
  }
  return boxAround(points.map((point) => ({ min: point, max: point })));
}
