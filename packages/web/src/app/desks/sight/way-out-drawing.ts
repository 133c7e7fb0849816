import type { SightResult } from '@stravel/core';
import type { PlateDrawing } from '../../plate/plate-drawing';
import { spotsOf, tracePolygon, type Spot } from './trace-polygon';

/** From arrow to arrow, pixels. */
const ARROW_STEP = 22;
/** Half the width of the first arrow and of those at the gap and beyond, pixels. */
const [NARROW, WIDE] = [3, 11];

/** A way out as a ribbon of arrows that widens towards the gap, and the gap outlined. */
export function drawWayOut(drawing: PlateDrawing, { wayOut, gap }: Pick<SightResult, 'wayOut' | 'gap'>): void {
  if (!wayOut) return;
  const { context, colours } = drawing;
  context.lineJoin = 'round';
  const arrows = arrowsAlong(spotsOf(drawing, wayOut.flat()), ARROW_STEP);
  const gapAt = nearestTo(arrows, spotsOf(drawing, gap?.polygons.flat() ?? []));
  arrows.forEach(({ at, angle }, i) => {
    const half = NARROW + (WIDE - NARROW) * Math.min(1, (i + 1) / (gapAt + 1));
    context.save();
    context.translate(...at);
    context.rotate(angle);
    context.beginPath();
    context.moveTo(-half, -half);
    context.lineTo(half, 0);
    context.lineTo(-half, half);
    context.lineTo(-half * 0.4, 0);
    context.closePath();
    context.fillStyle = colours.plate;
    context.strokeStyle = colours.over;
    context.lineWidth = 2;
    context.fill();
    context.stroke();
    context.restore();
  });
  for (const polygon of gap?.polygons ?? []) {
    // First wide in the colour of the plate, so that it reads on any ground.
    for (const [colour, width] of [
      [colours.plate, 8],
      [colours.over, 4],
    ] as const) {
      tracePolygon(drawing, polygon);
      context.strokeStyle = colour;
      context.lineWidth = width;
      context.stroke();
    }
  }
}

/** Number of the arrow nearest to the middle of a gap; the last where there is none in the picture. */
function nearestTo(arrows: readonly { readonly at: Spot }[], gap: readonly Spot[]): number {
  if (gap.length === 0) return arrows.length - 1;
  const [x, y] = [0, 1].map((axis) => gap.reduce((sum, spot) => sum + spot[axis], 0) / gap.length);
  const distances = arrows.map(({ at }) => Math.hypot(at[0] - x, at[1] - y));
  return distances.indexOf(Math.min(...distances));
}

/** Evenly spaced places along a line with the direction there, at least one where the line has a length. @param step pixels */
export function arrowsAlong(
  line: readonly Spot[],
  step: number,
): { readonly at: [number, number]; readonly angle: number }[] {
  const arrows: { at: [number, number]; angle: number }[] = [];
  const lengths = line.slice(1).map(([x, y], i) => Math.hypot(x - line[i][0], y - line[i][1]));
  const whole = lengths.reduce((sum, length) => sum + length, 0);
  if (whole === 0) return [];
  const count = Math.max(1, Math.floor(whole / step));
  let [segment, before] = [0, 0];
  for (let i = 0; i < count; i++) {
    const along = ((i + 0.5) * whole) / count;
    while (segment < lengths.length - 1 && before + lengths[segment] <= along) before += lengths[segment++];
    const share = lengths[segment] > 0 ? (along - before) / lengths[segment] : 0;
    const [[x0, y0], [x1, y1]] = [line[segment], line[segment + 1]];
    arrows.push({ at: [x0 + (x1 - x0) * share, y0 + (y1 - y0) * share], angle: Math.atan2(y1 - y0, x1 - x0) });
  }
  return arrows;
}
