import type { PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import { DragGesture, type Drag, type Hit } from './gesture';
import { drawLabel, drawLine, drawRectangle, sizeText, takePen } from './plan-drawing';

/** A press is a click while it goes no further than this. */
const CLICK_PIXELS = 4;

/** Whether a pointer has gone further from a point than a click does. */
export function isFar([x, z]: PlanPoint, { pointer, metresPerPixel }: Hit): boolean {
  return Math.hypot(pointer[0] - x, pointer[1] - z) >= CLICK_PIXELS * metresPerPixel;
}

/** Takes the two ends of a drag, snapped. */
export type TakesEnds = (from: PlanPoint, to: PlanPoint) => void;

/** Drags a line or a rectangle between two points to which the pointer snaps. */
export class TwoPointGesture extends DragGesture {
  constructor(
    private readonly shape: 'area' | 'line',
    private readonly take: TakesEnds,
  ) {
    super();
  }

  protected begin({ at: from }: Hit): Drag {
    let to = from;
    return {
      move: ({ at }) => {
        to = at;
      },
      up: ({ at }) => this.take(from, at),
      draw: (drawing) => {
        takePen(drawing);
        if (this.shape === 'line') drawLine(drawing, [from, to], false);
        else {
          drawRectangle(drawing, from, to);
          drawLabel(drawing, to, sizeText(Math.abs(to[0] - from[0]), Math.abs(to[1] - from[1])));
        }
      },
    };
  }
}

/** A line that a brush leaves. */
export interface Stroke {
  readonly points: readonly PlanPoint[];
  /** Its ends, snapped. */
  readonly from: PlanPoint;
  readonly to: PlanPoint;
}

/** Drags a brush over the plan. */
export class StrokeGesture extends DragGesture {
  /** @param widthMetres of the brush; 0 draws a thin line */
  constructor(
    private readonly widthMetres: () => number,
    private readonly take: (stroke: Stroke) => unknown,
  ) {
    super();
  }

  protected begin({ at: from, pointer }: Hit): Drag {
    const widthMetres = this.widthMetres();
    const points = [pointer];
    let to = from;
    return {
      move: (hit) => {
        to = hit.at;
        points.push(hit.pointer);
      },
      up: () => this.take({ points, from, to }),
      draw: (drawing) => drawStroke(drawing, points, widthMetres),
    };
  }
}

/** A line as wide as its brush. */
function drawStroke(drawing: PlateDrawing, points: readonly PlanPoint[], widthMetres: number): void {
  const { context, scale } = drawing;
  context.save();
  takePen(drawing);
  context.lineWidth = Math.max(1.5, widthMetres * scale);
  context.lineCap = context.lineJoin = 'round';
  context.globalAlpha = widthMetres > 0 ? 0.45 : 1;
  drawLine(drawing, points.length === 1 ? [points[0], points[0]] : points, false);
  context.restore();
}

/** Clicks once where something is to stand. */
export class PointGesture extends DragGesture {
  constructor(private readonly take: (at: PlanPoint) => void) {
    super();
  }

  protected begin({ at }: Hit): undefined {
    this.take(at);
    return undefined;
  }
}

/** Drags a dashed rectangle around what is meant, unsnapped; a click is none. */
export class RegionGesture extends DragGesture {
  constructor(private readonly take: TakesEnds) {
    super();
  }

  protected begin({ pointer: from }: Hit): Drag {
    let to = from;
    return {
      move: ({ pointer }) => {
        to = pointer;
      },
      up: (hit) => {
        if (isFar(from, hit)) this.take(from, hit.pointer);
      },
      draw: (drawing) => {
        takePen(drawing);
        drawRectangle(drawing, from, to, [12, 4]);
      },
    };
  }
}
