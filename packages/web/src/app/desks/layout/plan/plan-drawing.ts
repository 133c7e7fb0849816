import { toMicro, type PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';

/** Takes the pen for what is half done. */
export function takePen({ context, colours }: PlateDrawing): void {
  context.strokeStyle = colours.brine;
  context.lineWidth = 1.5;
}

export function drawLine({ context, at }: PlateDrawing, points: readonly PlanPoint[], close: boolean): void {
  context.beginPath();
  points.forEach(([x, z], i) => {
    const p = at(x, 0, z);
    if (!p) return;
    if (i === 0) context.moveTo(...p);
    else context.lineTo(...p);
  });
  if (close) context.closePath();
  context.stroke();
}

/** A rectangle between two corners. @param dash lengths of dashes and gaps in pixels */
export function drawRectangle(
  drawing: PlateDrawing,
  [x0, z0]: PlanPoint,
  [x1, z1]: PlanPoint,
  dash: readonly number[] = [],
): void {
  drawing.context.setLineDash([...dash]);
  drawLine(
    drawing,
    [
      [x0, z0],
      [x1, z0],
      [x1, z1],
      [x0, z1],
    ],
    true,
  );
  drawing.context.setLineDash([]);
}

export function drawLabel({ context, colours, at }: PlateDrawing, [x, z]: PlanPoint, text: string): void {
  const p = at(x, 0, z);
  if (!p) return;
  context.fillStyle = colours.ink;
  context.font = "11.5px 'Spline Sans Mono', monospace";
  context.fillText(text, p[0] + 12, p[1] - 8);
}

/** Two lengths beside each other, metres. */
export function sizeText(a: number, b: number): string {
  return `${toMicro(a)} × ${toMicro(b)} m`;
}

/** A way on the plan, metres. */
export function stepText([x, z]: PlanPoint): string {
  return `${toMicro(x)}, ${toMicro(z)} m`;
}

/** A face loop, xyz triples, on the plan. */
export function movedLoop(face: Float64Array, by: PlanPoint): PlanPoint[] {
  return Array.from({ length: face.length / 3 }, (_unused, i): PlanPoint => [
    face[i * 3] + by[0],
    face[i * 3 + 2] + by[1],
  ]);
}
