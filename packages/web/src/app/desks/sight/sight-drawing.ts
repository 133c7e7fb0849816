import type { Pocket, SightResult, Vector3 } from '@stravel/core';
import type { PlateDrawing } from '../../plate/plate-drawing';
import { costColour, type CostScale } from '../../plate/cost-scale';
import { tracePolygon } from './trace-polygon';
import { drawWayOut } from './way-out-drawing';

/** What is painted of a sight bake. */
export interface SightPaint {
  readonly sight: SightResult;
  /** Cost of each pocket, and how costs are coloured. */
  readonly costs: readonly number[];
  readonly scale: CostScale;
  /** Pocket that one stands in, −1 when none. */
  readonly standing: number;
  readonly bottom: number;
  readonly top: number;
}

/** Pockets under the plan: coloured by cost; when one stands in a pocket, what it cannot see is left blank. */
export function paintPockets(drawing: PlateDrawing, paint: SightPaint): void {
  const { context, colours } = drawing;
  const seen = paint.standing >= 0 ? new Set(paint.sight.visible[paint.standing]) : undefined;
  paint.sight.pockets.forEach((pocket, i) => {
    if (!pocket.reached || pocket.bounds.max[1] <= paint.bottom + 0.05 || pocket.bounds.min[1] >= paint.top) return;
    const outline = outlineTowards(pocket, 1);
    if (!outline) return;
    tracePolygon(drawing, outline);
    if (!seen || seen.has(i)) {
      context.globalAlpha = seen && i !== paint.standing ? 0.75 : 0.92;
      context.fillStyle = costColour(colours, paint.scale, paint.costs[i]);
      context.fill();
    } else {
      context.globalAlpha = 1;
      context.fillStyle = hatch(context, colours.line);
      context.fill();
    }
    context.globalAlpha = 1;
    context.strokeStyle = i === paint.standing ? colours.brine : colours.plate;
    context.lineWidth = i === paint.standing ? 3 : 1;
    context.stroke();
  });
}

/** A pocket that is pointed at in a list, on both views. */
export function outlinePocket(drawing: PlateDrawing, { sight }: SightPaint, pocket: number): void {
  const { context, colours, view } = drawing;
  const faces = heldPocket(sight, pocket)?.faces ?? [];
  context.strokeStyle = colours.ink;
  context.lineWidth = view === 'plan' ? 3 : 1.5;
  context.setLineDash([6, 3]);
  for (const face of faces) {
    tracePolygon(drawing, face);
    context.stroke();
  }
  context.setLineDash([]);
}

const heldPocket = ({ pockets }: SightResult, pocket: number): Pocket | undefined => pockets.at(pocket);

/** Over both views: the pocket that a person stands in, its openings, the way out. */
export function drawSight(drawing: PlateDrawing, paint: SightPaint, stand: Vector3 | null): void {
  const { context, colours, view } = drawing;
  if (view === 'model' && paint.standing >= 0) {
    const seen = new Set(paint.sight.visible[paint.standing]);
    context.lineWidth = 1;
    context.fillStyle = hatch(context, colours.softInk);
    paint.sight.pockets.forEach((pocket, i) => {
      const floor = pocket.reached && !seen.has(i) ? outlineTowards(pocket, -1) : undefined;
      if (!floor) return;
      tracePolygon(drawing, floor);
      context.fill();
    });
    seen.forEach((i) => {
      const pocket = paint.sight.pockets[i];
      const isHere = i === paint.standing;
      context.strokeStyle = isHere ? colours.brine : costColour(colours, paint.scale, paint.costs[i]);
      // What is seen by its floor alone: whole outlines would hide the level.
      for (const face of isHere ? pocket.faces : [outlineTowards(pocket, -1) ?? []]) {
        tracePolygon(drawing, face);
        context.stroke();
      }
    });
  }
  if (paint.standing >= 0 && view === 'plan') {
    context.strokeStyle = colours.brine;
    context.lineWidth = 4;
    for (const { pockets, polygon } of paint.sight.openings) {
      if (!pockets.includes(paint.standing)) continue;
      tracePolygon(drawing, polygon);
      context.stroke();
    }
  }
  drawWayOut(drawing, paint.sight);
  const at = stand && drawing.at(...stand);
  if (!at) return;
  context.fillStyle = colours.plate;
  context.strokeStyle = colours.brine;
  context.lineWidth = 2.5;
  context.beginPath();
  context.moveTo(at[0], at[1] - 9);
  context.lineTo(at[0] + 9, at[1]);
  context.lineTo(at[0], at[1] + 9);
  context.lineTo(at[0] - 9, at[1]);
  context.closePath();
  context.fill();
  context.stroke();
}

/** The face of a pocket that looks up most (1) or down most (−1). */
function outlineTowards({ planes, faces }: Pocket, way: 1 | -1): readonly number[] | undefined {
  let best = -1;
  planes.forEach(([, ny], i) => {
    if (ny * way > 1e-6 && (best < 0 || ny * way > planes[best][1] * way)) best = i;
  });
  return best < 0 ? undefined : faces[best];
}

const hatches = new Map<string, CanvasPattern>();

/** Slanted lines: not seen from here. */
function hatch(context: CanvasRenderingContext2D, colour: string): CanvasPattern | string {
  const known = hatches.get(colour);
  if (known) return known;
  const tile = document.createElement('canvas');
  tile.width = tile.height = 8;
  const pen = tile.getContext('2d');
  if (!pen) return colour;
  pen.strokeStyle = colour;
  pen.lineWidth = 1;
  pen.beginPath();
  pen.moveTo(0, 8);
  pen.lineTo(8, 0);
  pen.moveTo(-2, 2);
  pen.lineTo(2, -2);
  pen.moveTo(6, 10);
  pen.lineTo(10, 6);
  pen.stroke();
  const pattern = context.createPattern(tile, 'repeat');
  if (!pattern) return colour;
  hatches.set(colour, pattern);
  return pattern;
}
