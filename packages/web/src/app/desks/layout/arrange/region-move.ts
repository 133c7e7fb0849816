import {
  PLACED_KINDS,
  anchorOf,
  anyItem,
  movedWithin,
  movesInParts,
  type ItemKind,
  type Box3,
  type Operation,
  type Vector3,
} from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import { setField } from '../../../edits/operations';
import { isDrawn } from '../../../plate/kinds';
import type { PickItem } from '../../../plate/pick-item';
import type { ItemRef } from '../store/layout-store';

export interface RegionMove {
  readonly operations: readonly Operation[];
  /** How many things move, by kind. */
  readonly counts: ReadonlyMap<ItemKind, number>;
  /** What lies within and stays, as it is locked. */
  readonly locked: readonly ItemRef[];
}

/**
 * Moves everything within a box together, over all strata: whole things whose bounds lie within, and those knots of paths that do.
 * @param boundsOf of an item, undefined when it has none; recipes are taken by their place
 */
export function moveRegion(
  strata: readonly StratumDocument[],
  { min, max }: { readonly min: Vector3; readonly max: Vector3 },
  by: Vector3,
  boundsOf: (ref: ItemRef) => PickItem['bounds'] | undefined,
  isLocked: (ref: ItemRef) => boolean,
): RegionMove {
  const operations: Operation[] = [];
  const counts = new Map<ItemKind, number>();
  const locked: ItemRef[] = [];
  const holds = (low: Vector3, high: Vector3): boolean => low.every((value, k) => value >= min[k] && high[k] <= max[k]);
  for (const document of strata) {
    for (const kind of PLACED_KINDS) {
      for (const item of document.itemsOf(kind)) {
        const ref: ItemRef = { stratum: document.id, kind, id: item.id };
        const placed = anyItem<ItemKind>(kind, item);
        const bounds = isDrawn(kind) ? boundsOf(ref) : pointBounds(anchorOf(placed));
        if (!movesInParts(placed) && !(bounds && holds(bounds.min, bounds.max))) continue;
        const fields = Object.entries(movedWithin(placed, min, max, by));
        if (fields.length === 0) continue;
        if (isLocked(ref)) {
          locked.push(ref);
          continue;
        }
        counts.set(kind, (counts.get(kind) ?? 0) + 1);
        for (const [field, value] of fields) operations.push(setField(document.id, kind, item, field, value));
      }
    }
  }
  return { operations, counts, locked };
}

function pointBounds(point: Vector3 | undefined): Box3 | undefined {
  return point && { min: point, max: point };
}
