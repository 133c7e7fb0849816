import { strToU8 } from 'fflate';
import { canonicalJson } from '../json/canonical-json';
import { turnQuaternion } from '../geometry/turn-quaternion';
import type { Json } from '../model/json';
import { packedGroup, packedValues } from '../items/packed-form';
import { placementAt } from '../items/placement/columns';
import type { Placement, PlacementColumns } from '../model/placement';

/** A placement stands this deep in its level's file, spaces a line. */
const PLACED_INDENT = 8;

/** A placement as a level's file has it. */
export function placedJson({ id, piece, position, turn, scale, values, group }: Placement): Json {
  return {
    id,
    piece,
    translation: [...position],
    rotation: turnQuaternion(turn),
    scale: [...scale],
    ...packedValues(values),
    ...packedGroup(group),
  };
}

function placementFileBytes(placement: Placement): number {
  const text = canonicalJson(placedJson(placement));
  return strToU8(text).length + PLACED_INDENT * (text.split('\n').length - 1);
}

/** Bytes of placements in their level's file. */
export function placedFileBytes(columns: PlacementColumns): number {
  let bytes = 0;
  for (let i = 0; i < columns.count; i++) bytes += placementFileBytes(placementAt(columns, i));
  return bytes;
}
