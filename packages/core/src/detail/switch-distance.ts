import type { PieceStep } from '../model/kit';
import type { ViewSettings } from '../model/view-settings';
import { cosDegrees, sinDegrees } from '../numeric/trigonometry';

/** Pixels that one metre takes up in the picture at a distance of one metre. */
export function pixelsAtOneMetre({
  fieldOfViewDegrees,
  pictureHeightPixels,
}: Omit<ViewSettings, 'errorPixels'>): number {
  const half = fieldOfViewDegrees / 2;
  return (pictureHeightPixels * cosDegrees(half)) / (2 * sinDegrees(half));
}

/**
 * The distance from which each step may show: there its deviation is as large in the picture as the error allowed.
 * Never less than that of the step before.
 * @param scale greatest scale of the placement
 * @returns metres, one a step; 0 for the full one
 */
export function switchDistances(
  steps: readonly Pick<PieceStep, 'deviationMetres'>[],
  view: ViewSettings,
  scale = 1,
): number[] {
  // Asked for every placement of a level, most of which have no chain.
  if (steps.length === 1) return [0];
  const factor = (pixelsAtOneMetre(view) / view.errorPixels) * scale;
  let last = 0;
  return steps.map(
    ({ deviationMetres }, step) => (last = step === 0 ? 0 : Math.max(last, (deviationMetres ?? 0) * factor)),
  );
}

/** The coarsest step that may show at a distance. */
export function stepAtDistance(distances: readonly number[], metres: number): number {
  let step = 0;
  for (let k = 1; k < distances.length; k++) if (metres >= distances[k]) step = k;
  return step;
}
