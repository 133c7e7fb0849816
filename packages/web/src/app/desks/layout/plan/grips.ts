import type { PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import type { Drag, Hit } from './gesture';

/** A grip is taken this near to it. */
const GRIP_PIXELS = 8;

/** The grips on the plan of the one thing that is selected. */
export interface Grips {
  /** What a press on one of them begins; undefined when none is that near. */
  take(hit: Hit): Drag | undefined;
  draw(drawing: PlateDrawing): void;
}

/** The nearest of some grips that is near enough to be taken. */
export function nearestGrip<G extends { readonly at: PlanPoint }>(
  grips: readonly G[],
  { pointer, metresPerPixel }: Hit,
): G | undefined {
  let [nearest, pixels]: [G | undefined, number] = [undefined, GRIP_PIXELS];
  for (const grip of grips) {
    const away = Math.hypot(grip.at[0] - pointer[0], grip.at[1] - pointer[1]) / metresPerPixel;
    if (away < pixels || (away === pixels && nearest === undefined)) [nearest, pixels] = [grip, away];
  }
  return nearest;
}
