import { kindsOf, specOf } from '../items';
import type { AnyItem } from '../items/item-spec';
import { mirroringAt, turningAbout, type ChangedFields, type Place } from '../items/place';
import type { ItemKind, ItemOfKind } from '../model/items';
import type { PlanPoint, Vector3 } from '../model/vector';

/** The kinds of item that have a place in the level. */
export const PLACED_KINDS = kindsOf(({ place }) => place !== null);

/** The point that an item is placed by, metres: the middle of a divider or a path; undefined for what has no place. */
export function anchorOf<K extends ItemKind>(one: AnyItem<K>): Vector3 | undefined {
  return placeOf(one)?.anchor(one.item);
}

/** Moves an item. Nothing changes of what has no place. @param by metres */
export function movedFields<K extends ItemKind>(one: AnyItem<K>, by: Vector3): ChangedFields {
  return plain(placeOf(one)?.moved(one.item, by));
}

/** Turns an item about an upright axis through a point of the plan. Degrees, counter-clockwise seen from above. Grids (sections, tile floors, masks) do not turn: they move. */
export function turnedFields<K extends ItemKind>(one: AnyItem<K>, degrees: number, about: PlanPoint): ChangedFields {
  return plain(placeOf(one)?.turned(one.item, turningAbout(degrees, about)));
}

/**
 * Mirrors an item in an upright plane across the x or the z axis. Blocks, volumes and paths are mirrored in themselves;
 * markers, assemblies and sections only change place and direction, as what they show is not theirs.
 * @param at where the plane stands on that axis, metres
 * @param mirrorsPieces whether placements become their mirror image as well, or change place and direction only
 */
export function mirroredFields<K extends ItemKind>(
  one: AnyItem<K>,
  axis: 'x' | 'z',
  at: number,
  mirrorsPieces = true,
): ChangedFields {
  return plain(placeOf(one)?.mirrored(one.item, mirroringAt(axis, at, mirrorsPieces)));
}

/** Turns an item, and scales what has a scale, where it stands. @param degrees counter-clockwise seen from above */
export function variedFields<K extends ItemKind>(one: AnyItem<K>, degrees: number, scale: number): ChangedFields {
  return plain(placeOf(one)?.varied?.(one.item, degrees, scale));
}

/** Whether parts of an item may lie within a box while others do not, as the knots of a path. */
export function movesInParts<K extends ItemKind>(one: AnyItem<K>): boolean {
  return placeOf(one)?.movedWithin !== undefined;
}

/** Only the knots of a path within a box move, or all of any other item. Empty when nothing of it lies there. @param min, max metres */
export function movedWithin<K extends ItemKind>(
  one: AnyItem<K>,
  min: Vector3,
  max: Vector3,
  by: Vector3,
): ChangedFields {
  const place = placeOf(one);
  const isWithin = (point: Vector3): boolean => point.every((value, k) => value >= min[k] && value <= max[k]);
  return plain(place?.movedWithin ? place.movedWithin(one.item, isWithin, by) : place?.moved(one.item, by));
}

function placeOf<K extends ItemKind>({ kind }: AnyItem<K>): Place<ItemOfKind[K]> | null {
  return specOf<K>(kind).place;
}

/** Fields of an item are plain data; their types only lack an index signature. */
function plain(fields: object | undefined): ChangedFields {
  return (fields ?? {}) as ChangedFields;
}
