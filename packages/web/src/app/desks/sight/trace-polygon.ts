import type { PlateDrawing } from '../../plate/plate-drawing';

export type Spot = readonly [number, number];

/** Points in the picture; those behind the eye are left out. @param points xyz triples */
export function spotsOf({ at }: PlateDrawing, points: readonly number[]): Spot[] {
  const spots: Spot[] = [];
  for (let i = 0; i < points.length; i += 3) {
    const spot = at(points[i], points[i + 1], points[i + 2]);
    if (spot) spots.push(spot);
  }
  return spots;
}

/** Begins a closed path through points, to be filled or stroked. @param points xyz triples */
export function tracePolygon(drawing: PlateDrawing, points: readonly number[]): void {
  const { context } = drawing;
  const spots = spotsOf(drawing, points);
  context.beginPath();
  spots.forEach((spot, i) => (i === 0 ? context.moveTo(...spot) : context.lineTo(...spot)));
  if (spots.length > 0) context.closePath();
}
