import { toMicro, type PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import { handlesOf, outlineOf, type Handle, type HandleFrame, type PlanExtent } from './frame';

/** What a path is drawn by: a knot, or the end of its handle ahead (1) or behind (-1). */
export interface KnotGrip {
  readonly index: number;
  readonly end: 0 | 1 | -1;
  readonly at: PlanPoint;
}

/** What the pointer is in the middle of. */
export type PlanDrag =
  | { readonly kind: 'box-select'; readonly from: PlanPoint; to: PlanPoint; readonly add: boolean }
  | { readonly kind: 'move'; readonly from: PlanPoint; by: PlanPoint; started: boolean }
  | {
      readonly kind: 'stretch';
      readonly frame: HandleFrame;
      readonly handle: Extract<Handle, { kind: 'size' }>;
      to: PlanExtent | undefined;
    }
  | { readonly kind: 'turn'; readonly frame: HandleFrame; yaw: number | undefined }
  | { readonly kind: 'block'; readonly from: PlanPoint; to: PlanPoint }
  | { readonly kind: 'region'; readonly from: PlanPoint; to: PlanPoint }
  | {
      readonly kind: 'stroke';
      readonly from: PlanPoint;
      to: PlanPoint;
      readonly points: PlanPoint[];
      readonly widthMetres: number;
    }
  | {
      readonly kind: 'knot';
      readonly index: number;
      readonly end: KnotGrip['end'];
      readonly from: PlanPoint;
      to: PlanPoint | undefined;
    }
  | { readonly kind: 'marker'; readonly from: PlanPoint; to: PlanPoint };

/** What is drawn over the plan while a tool is at work. */
export interface HalfDone {
  readonly drag: PlanDrag | undefined;
  /** Corners of a prism so far. */
  readonly outline: readonly PlanPoint[];
  readonly cursor: PlanPoint;
  /** Face loops of what is selected, xyz triples. */
  readonly outlines: () => readonly Float64Array[];
  /** What carries grips. */
  readonly frame: HandleFrame | undefined;
}

const GRIP_SIZE_PIXELS = 8;

/** Draws what is half done, and the grips of what is selected. */
export function drawHalfDone(drawing: PlateDrawing, half: HalfDone): void {
  const { context, colours } = drawing;
  context.strokeStyle = colours.brine;
  context.lineWidth = 1.5;
  if (half.drag) drawDrag(drawing, half.drag, half.outlines);
  if (half.outline.length > 0) line(drawing, [...half.outline, half.cursor], false);
  if (half.frame && half.drag?.kind !== 'move') drawGrips(drawing, half.frame, half.drag);
}

/** The handles of a smooth path's knots: a thin line with a round end. */
export function drawHandles({ context, colours, at }: PlateDrawing, grips: readonly KnotGrip[]): void {
  const knots = new Map(grips.filter(({ end }) => end === 0).map(({ index, at: place }) => [index, place]));
  context.strokeStyle = colours.brine;
  context.fillStyle = colours.plate;
  context.lineWidth = 1;
  for (const { index, end, at: place } of grips) {
    const knot = knots.get(index);
    if (end === 0 || !knot) continue;
    const [from, to] = [at(knot[0], 0, knot[1]), at(place[0], 0, place[1])];
    if (!from || !to) continue;
    context.beginPath();
    context.moveTo(...from);
    context.lineTo(...to);
    context.stroke();
    context.beginPath();
    context.arc(to[0], to[1], 3.5, 0, Math.PI * 2);
    context.fill();
    context.stroke();
  }
}

function drawDrag(drawing: PlateDrawing, drag: PlanDrag, outlines: () => readonly Float64Array[]): void {
  const { context } = drawing;
  if (drag.kind === 'box-select' || drag.kind === 'region') {
    context.setLineDash(drag.kind === 'region' ? [12, 4] : [4, 4]);
    line(drawing, rectangle(drag.from, drag.to), true);
    context.setLineDash([]);
  } else if (drag.kind === 'stroke') stroke(drawing, drag.points, drag.widthMetres);
  else if (drag.kind === 'block') {
    line(drawing, rectangle(drag.from, drag.to), true);
    label(
      drawing,
      drag.to,
      `${toMicro(Math.abs(drag.to[0] - drag.from[0]))} × ${toMicro(Math.abs(drag.to[1] - drag.from[1]))} m`,
    );
  } else if (drag.kind === 'knot') {
    if (!drag.to) return;
    line(drawing, [drag.from, drag.to], false);
    label(drawing, drag.to, `${toMicro(drag.to[0] - drag.from[0])}, ${toMicro(drag.to[1] - drag.from[1])} m`);
  } else if (drag.kind === 'marker') line(drawing, [drag.from, drag.to], false);
  else if (drag.kind === 'move' && drag.started) {
    for (const face of outlines()) line(drawing, movedLoop(face, drag.by), true);
    label(
      drawing,
      [drag.from[0] + drag.by[0], drag.from[1] + drag.by[1]],
      `${toMicro(drag.by[0])}, ${toMicro(drag.by[1])} m`,
    );
  }
}

/** The grips, and what the thing will be when they are let go. */
function drawGrips(drawing: PlateDrawing, frame: HandleFrame, drag: PlanDrag | undefined): void {
  const { context, colours, scale } = drawing;
  if (drag?.kind === 'stretch' && drag.to) {
    const { low, high } = drag.to;
    const corners = outlineOf(frame, drag.to);
    line(drawing, corners, true);
    label(drawing, corners[2], `${toMicro(high[0] - low[0])} × ${toMicro(high[1] - low[1])} m`);
  }
  const grips = handlesOf(frame, 1 / scale);
  if (drag?.kind === 'turn' && drag.yaw !== undefined) label(drawing, grips[grips.length - 1].at, `${drag.yaw}°`);
  context.fillStyle = colours.plate;
  context.lineWidth = 1.5;
  for (const { handle, at } of grips) {
    const p = drawing.at(at[0], 0, at[1]);
    if (!p) continue;
    context.beginPath();
    if (handle.kind === 'turn') context.arc(p[0], p[1], GRIP_SIZE_PIXELS / 2 + 1, 0, Math.PI * 2);
    else context.rect(p[0] - GRIP_SIZE_PIXELS / 2, p[1] - GRIP_SIZE_PIXELS / 2, GRIP_SIZE_PIXELS, GRIP_SIZE_PIXELS);
    context.fill();
    context.stroke();
  }
}

function line({ context, at }: PlateDrawing, points: readonly PlanPoint[], close: boolean): void {
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

/** A line as wide as its brush. */
function stroke(drawing: PlateDrawing, points: readonly PlanPoint[], widthMetres: number): void {
  const { context, scale } = drawing;
  context.save();
  context.lineWidth = Math.max(1.5, widthMetres * scale);
  context.lineCap = context.lineJoin = 'round';
  context.globalAlpha = widthMetres > 0 ? 0.45 : 1;
  line(drawing, points.length === 1 ? [points[0], points[0]] : points, false);
  context.restore();
}

function label({ context, colours, at }: PlateDrawing, [x, z]: PlanPoint, text: string): void {
  const p = at(x, 0, z);
  if (!p) return;
  context.fillStyle = colours.ink;
  context.font = "11.5px 'Spline Sans Mono Variable', monospace";
  context.fillText(text, p[0] + 12, p[1] - 8);
}

function rectangle([x0, z0]: PlanPoint, [x1, z1]: PlanPoint): PlanPoint[] {
  return [
    [x0, z0],
    [x1, z0],
    [x1, z1],
    [x0, z1],
  ];
}

function movedLoop(face: Float64Array, by: PlanPoint): PlanPoint[] {
  return Array.from({ length: face.length / 3 }, (_unused, i): PlanPoint => [
    face[i * 3] + by[0],
    face[i * 3 + 2] + by[1],
  ]);
}
