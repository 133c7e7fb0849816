import {
  boxPlanes,
  cylinderPlanes,
  prismPlanes,
  wedgePlanes,
  type Block,
  type BlockPlane,
  type PlanPoint,
  type Vector3,
} from '@stravel/core';
import { newId } from '../../../../edits/operations';
import { UNTURNED, aboutMiddle, areaBetween } from '../../plan/areas';

function block(name: string, planes: readonly BlockPlane[], position: Vector3): Block {
  return { id: newId(), name, position, turn: UNTURNED, planes, sight: 'hides', material: 'brick' };
}

/** Planes of what a rectangle is filled with, by its size in metres. */
export const DRAGGED_FORMS = {
  box: boxPlanes,
  wedge: wedgePlanes,
  cylinder: cylinderPlanes,
} as const;

/** A box, wedge or cylinder over a dragged rectangle. @throws CoreError 'CYLINDER_SIDES' */
export function draggedBlock(
  form: keyof typeof DRAGGED_FORMS,
  { blockHeight, sides }: { readonly blockHeight: number; readonly sides: number },
  floor: number,
  from: PlanPoint,
  to: PlanPoint,
): Block | undefined {
  const area = areaBetween(from, to);
  if (!area) return undefined;
  const size: Vector3 = [area.size[0], blockHeight, area.size[1]];
  return block(form, DRAGGED_FORMS[form](size, sides), [area.middle[0], floor, area.middle[1]]);
}

/** A prism over an outline. @throws CoreError 'OUTLINE_NOT_CONVEX', 'OUTLINE_TOO_SHORT' */
export function outlinedBlock(blockHeight: number, floor: number, points: readonly PlanPoint[]): Block {
  const { middle, outline } = aboutMiddle(points);
  return block('prism', prismPlanes(outline, blockHeight), [middle[0], floor, middle[1]]);
}
