import {
  anchorOf,
  kindsWith,
  movedFields,
  specOf,
  turnedFields,
  type AnyItem,
  type ChangedFields,
  type ItemKind,
  type Operation,
  type PlanPoint,
  type Vector3,
} from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import { create, newId, remove, setField } from '../../../edits/operations';
import type { ItemRef } from '../store/layout-store';
import { changedItem, placedItem, type PlacedItem } from './placed-item';

/** The kinds of item that this desk edits; recipes and pins belong to Sections. */
export const LAYOUT_KINDS = kindsWith('selected');
/** Those that have a place, as lists have them. */
export const LISTED_KINDS = [false, true].flatMap((many) =>
  LAYOUT_KINDS.filter((kind) => specOf(kind).place !== null && specOf(kind).traits.many === many),
);

/** Refers to the items of some ids, in whichever stratum and of whichever kind they are. */
export function itemsNamed(strata: readonly StratumDocument[], ids: ReadonlySet<string>): ItemRef[] {
  return strata.flatMap((document) =>
    LAYOUT_KINDS.flatMap((kind) =>
      [...ids].flatMap((id) => (document.item(kind, id) ? [{ stratum: document.id, kind, id }] : [])),
    ),
  );
}

/** Operations that set some fields of an item. */
export function setFields({ stratum, kind, item }: PlacedItem, fields: ChangedFields): Operation[] {
  return Object.entries(fields).map(([field, value]) => setField(stratum, kind, item, field, value));
}

/** Changes each item that has a place. */
export function changeItems(
  items: readonly PlacedItem[],
  change: (one: AnyItem, index: number) => ChangedFields,
): Operation[] {
  return items.flatMap((one, i) => setFields(one, change(one, i)));
}

/** Moves items by the same amount, metres. */
export function moveItems(items: readonly PlacedItem[], by: Vector3): Operation[] {
  return changeItems(items, (one) => movedFields(one, by));
}

/** Turns items together about an upright axis through a point of the plan. Degrees, counter-clockwise seen from above. */
export function turnItems(items: readonly PlacedItem[], degrees: number, about: PlanPoint): Operation[] {
  return changeItems(items, (one) => turnedFields(one, degrees, about));
}

/** The point of the plan about which items turn together: the middle of their places. */
export function middleOf(items: readonly PlacedItem[]): PlanPoint {
  const places = items.flatMap((one) => {
    const place = anchorOf(one);
    return place ? [place] : [];
  });
  const mean = (k: 0 | 2): number => places.reduce((sum, place) => sum + place[k], 0) / Math.max(1, places.length);
  return [mean(0), mean(2)];
}

/** Copies of items beside the originals. */
export function duplicateItems(
  items: readonly PlacedItem[],
  by: Vector3,
): { copies: PlacedItem[]; operations: Operation[] } {
  const copies = items.map((one) =>
    placedItem<ItemKind>(
      one.stratum,
      one.kind,
      changedItem(one.kind, { ...one.item, id: newId() }, movedFields(one, by)),
    ),
  );
  return { copies, operations: copies.map(({ stratum, kind, item }) => create(stratum, kind, item)) };
}

export function deleteItems(items: readonly PlacedItem[]): Operation[] {
  return items.map(({ stratum, kind, item }) => remove(stratum, kind, item));
}
