import {
  anchorOf,
  anyItem,
  kindsWith,
  localBounds,
  movedFields,
  stretchPlanes,
  turnedFields,
  vectorToMicro,
  type Block,
  type ChangedFields,
  type Item,
  type ItemKind,
  type Json,
  type Operation,
  type Piece,
  type AnyItem,
  type Placement,
  type PlanPoint,
  type Vector3,
  type Volume,
} from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import { create, newId, remove, setField } from '../../../edits/operations';
import type { ItemRef } from '../store/layout-store';

/** The kinds of item that this desk edits; recipes and pins belong to Sections. */
export const LAYOUT_KINDS = kindsWith('selected');
export type LayoutItem = Item;

/** An item with its place, as it stands. */
export interface PlacedItem {
  readonly stratum: string;
  readonly kind: ItemKind;
  readonly item: LayoutItem;
}

/** Refers to the items of some ids, in whichever stratum and of whichever kind they are. */
export function itemsNamed(strata: readonly StratumDocument[], ids: ReadonlySet<string>): ItemRef[] {
  return strata.flatMap((document) =>
    LAYOUT_KINDS.flatMap((kind) =>
      [...ids].flatMap((id) => (document.item(kind, id) ? [{ stratum: document.id, kind, id }] : [])),
    ),
  );
}

function pairOf({ kind, item }: PlacedItem): AnyItem {
  return anyItem<ItemKind>(kind, item);
}

/** Names an item. */
export function refOf({ stratum, kind, item }: PlacedItem): ItemRef {
  return { stratum, kind, id: item.id };
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
  return items.flatMap((one, i) => setFields(one, change(pairOf(one), i)));
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
    const place = anchorOf(pairOf(one));
    return place ? [place] : [];
  });
  const mean = (k: 0 | 2): number => places.reduce((sum, place) => sum + place[k], 0) / Math.max(1, places.length);
  return [mean(0), mean(2)];
}

/** Size of a block or a placement in its own frame, metres; undefined for things that have none. */
export function sizeOfItem({ kind, item }: PlacedItem, piece: Piece | undefined): Vector3 | undefined {
  if (kind === 'block') return sizeOfPlanes((item as Block).planes);
  if (kind === 'volume') return sizeOfVolume(item as Volume);
  if (kind !== 'placement' || !piece) return undefined;
  const natural = naturalSize(piece);
  const { scale } = item as Placement;
  return [natural[0] * scale[0], natural[1] * scale[1], natural[2] * scale[2]];
}

function naturalSize({ bounds: { min, max } }: Piece): Vector3 {
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
}

/** Sets the size of a block by stretching its planes about its own origin, or of a placement by its scale. Metres, each above 0. */
export function resizeItem({ stratum, kind, item }: PlacedItem, size: Vector3, piece: Piece | undefined): Operation[] {
  if (kind === 'placement' && piece) {
    const natural = naturalSize(piece);
    return [
      setField(
        stratum,
        kind,
        item,
        'scale',
        vectorToMicro([size[0] / natural[0], size[1] / natural[1], size[2] / natural[2]]) as unknown as Json,
      ),
    ];
  }
  if (kind === 'volume')
    return [setField(stratum, kind, item, 'shape', resizedShape(item as Volume, size) as unknown as Json)];
  if (kind !== 'block') return [];
  const { planes } = item as Block;
  const now = sizeOfPlanes(planes);
  const factors: Vector3 = [size[0] / now[0], size[1] / now[1], size[2] / now[2]];
  return [setField(stratum, kind, item, 'planes', stretchPlanes(planes, factors) as unknown as Json)];
}

function sizeOfVolume({ shape }: Volume): Vector3 {
  if (shape.form === 'box') return shape.size;
  if (shape.form === 'sphere') return [shape.radiusMetres * 2, shape.radiusMetres * 2, shape.radiusMetres * 2];
  const along = (k: 0 | 1): number =>
    Math.max(...shape.outline.map((point) => point[k])) - Math.min(...shape.outline.map((point) => point[k]));
  return vectorToMicro([along(0), shape.heightMetres, along(1)]);
}

/** A sphere takes the size that was changed for all three. */
function resizedShape(volume: Volume, size: Vector3): Volume['shape'] {
  const { shape } = volume;
  const now = sizeOfVolume(volume);
  if (shape.form === 'box') return { ...shape, size };
  if (shape.form === 'sphere')
    return { ...shape, radiusMetres: (size.find((value, k) => value !== now[k]) ?? size[0]) / 2 };
  return {
    ...shape,
    heightMetres: size[1],
    outline: shape.outline.map(([x, z]) => [(x * size[0]) / now[0], (z * size[2]) / now[2]]),
  };
}

/** Extent of planes in their own frame, metres to the micrometre. */
export function sizeOfPlanes(planes: Block['planes']): Vector3 {
  const { min, max } = localBounds(planes);
  return vectorToMicro([max[0] - min[0], max[1] - min[1], max[2] - min[2]]);
}

/** Copies of items beside the originals. */
export function duplicateItems(
  items: readonly PlacedItem[],
  by: Vector3,
): { copies: PlacedItem[]; operations: Operation[] } {
  const copies = items.map(({ stratum, kind, item }) => ({ stratum, kind, item: { ...item, id: newId() } }));
  const moved = copies.map((copy) => ({
    ...copy,
    item: { ...copy.item, ...movedFields(pairOf(copy), by) } as LayoutItem,
  }));
  return { copies: moved, operations: moved.map(({ stratum, kind, item }) => create(stratum, kind, item)) };
}

export function deleteItems(items: readonly PlacedItem[]): Operation[] {
  return items.map(({ stratum, kind, item }) => remove(stratum, kind, item));
}
