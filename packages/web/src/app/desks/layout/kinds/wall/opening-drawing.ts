import { wallPlan, type PlanPoint, type Wall, type WallOpening } from '@stravel/core';
import type { PlateDrawing } from '../../../../plate/plate-drawing';
import { drawLabel, drawLine, takePen } from '../../plan/plan-drawing';

/** The middle of an opening on the plan; undefined where it has no segment. */
export function middleOfOpening(wall: Wall, { corner, offsetMetres }: WallOpening): PlanPoint | undefined {
  const segment = wallPlan(wall).segments.find((one) => one.corner === corner);
  if (!segment) return undefined;
  const { from, direction } = segment;
  const [x, z] = wall.corners[0].position;
  return [x + from[0] + direction[0] * offsetMetres, z + from[1] + direction[1] * offsetMetres];
}

/** An opening that is about to be, with how far its sides are from the corners of its segment. */
export function drawOpening(drawing: PlateDrawing, wall: Wall, opening: WallOpening): void {
  const segment = wallPlan(wall).segments.find(({ corner }) => corner === opening.corner);
  const middle = middleOfOpening(wall, opening);
  if (!segment || !middle) return;
  const [dx, dz] = segment.direction;
  const half = wall.thicknessMetres / 2;
  const place = (along: number, across: number): PlanPoint => [
    middle[0] + dx * along - dz * across,
    middle[1] + dz * along + dx * across,
  ];
  const side = opening.widthMetres / 2;
  takePen(drawing);
  drawLine(drawing, [place(-side, -half), place(side, -half), place(side, half), place(-side, half)], true);
  const before = opening.offsetMetres - side;
  const after = segment.lengthMetres - opening.offsetMetres - side;
  drawLabel(drawing, middle, `${before.toFixed(2)} | ${opening.widthMetres.toFixed(2)} | ${after.toFixed(2)} m`);
}
