import type { Box3 } from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { isSeen, unseenGroups, type HiddenGroups } from '../document/unseen-groups';
import type { PickItem } from './pick-item';
import type { Pane, PlanCamera } from './plate-cameras';
import type { PlateColours } from './plate-colours';
import type { HeightRange, PlateDrawing } from './plate-drawing';

const STEPS = [0.1, 0.5, 1, 5, 10, 50, 100, 500, 1000, 5000];
const MIN_PIXELS = 9;
/** Selections of more things are outlined by their bounds. */
const MAX_EXACT_OUTLINES = 1000;

/** Paper and grid of the plan: the snap step when it is wide enough, else the next round one. */
export function drawGrid(
  context: CanvasRenderingContext2D,
  pane: Pane,
  camera: PlanCamera,
  colours: PlateColours,
  gridMetres: number,
): void {
  context.fillStyle = colours.plate;
  context.fillRect(pane.left, pane.top, pane.width, pane.height);
  const step =
    [gridMetres, ...STEPS].find(
      (metres) => metres > 0 && metres >= gridMetres && metres * camera.scale >= MIN_PIXELS,
    ) ?? 10000;
  const [x0, z0] = camera.toPlan(pane, pane.left, pane.top);
  const [x1, z1] = camera.toPlan(pane, pane.left + pane.width, pane.top + pane.height);
  for (const [metres, alpha] of [
    [step, 0.45],
    [step * 5, 1],
  ] as const) {
    context.globalAlpha = alpha;
    context.strokeStyle = colours.line;
    context.lineWidth = 0.7;
    context.beginPath();
    for (let i = Math.ceil(x0 / metres); i * metres <= x1; i++) {
      const [px] = camera.toScreen(pane, i * metres, 0);
      context.moveTo(px, pane.top);
      context.lineTo(px, pane.top + pane.height);
    }
    for (let i = Math.ceil(z0 / metres); i * metres <= z1; i++) {
      const [, py] = camera.toScreen(pane, 0, i * metres);
      context.moveTo(pane.left, py);
      context.lineTo(pane.left + pane.width, py);
    }
    context.stroke();
  }
  context.globalAlpha = 1;
}

/** A bar of a round length in the plan's corner. */
export function drawScale({ context, colours, scale }: PlateDrawing, pane: Pane): void {
  const metres = STEPS.find((step) => step * scale >= 50) ?? 10000;
  const length = metres * scale;
  const x = pane.left + 12;
  const y = pane.top + pane.height - 12;
  context.strokeStyle = colours.softInk;
  context.fillStyle = colours.softInk;
  context.lineWidth = 1;
  context.beginPath();
  context.moveTo(x, y - 5);
  context.lineTo(x, y);
  context.lineTo(x + length, y);
  context.lineTo(x + length, y - 5);
  context.stroke();
  context.font = "11px 'Spline Sans Mono Variable', monospace";
  context.fillText(`${metres} m`, x + length + 6, y + 1);
}

/** What of a very large level is not drawn yet, or not at all. */
export function drawPending({ context, colours }: PlateDrawing, pane: Pane, pending: number, leftOut: number): void {
  const lines = [
    ...(pending > 0 ? [`Drawing ${pending.toLocaleString('en')} more blocks…`] : []),
    ...(leftOut > 0
      ? [`${leftOut.toLocaleString('en')} blocks are too many to draw; spread them over more strata or levels.`]
      : []),
  ];
  context.fillStyle = colours.over;
  context.font = "13px 'Spline Sans Variable', sans-serif";
  lines.forEach((line, i) => context.fillText(line, pane.left + 12, pane.top + 22 + i * 18));
}

/** Spawns are an open arrowhead that points where one looks, exits a ring round a dot, checkpoints a pennant, pickups a lozenge; dividers a dashed line with ticks. */
export function drawMarkers(
  drawing: PlateDrawing,
  strata: readonly StratumDocument[],
  hidden: HiddenGroups,
  range: HeightRange | undefined,
): void {
  const { context, colours } = drawing;
  for (const document of strata) {
    const unseen = unseenGroups(document, hidden);
    for (const marker of document.tables.marker.values()) {
      if (!isSeen(marker.group, unseen)) continue;
      const [x, y, z] = marker.position;
      const at = drawing.at(x, y, z);
      if (!at) continue;
      context.globalAlpha = !range || (y >= range.bottom - 0.01 && y <= range.top) ? 1 : 0.25;
      context.strokeStyle = colours.kiln;
      context.fillStyle = colours.plate;
      context.lineWidth = 2;
      context.beginPath();
      if (marker.kind === 'spawn') arrowhead(context, at, marker.turn);
      else if (marker.kind === 'checkpoint') pennant(context, at);
      else if (marker.kind === 'pickup') lozenge(context, at);
      else context.arc(at[0], at[1], 8, 0, Math.PI * 2);
      context.fill();
      context.stroke();
      if (marker.kind === 'exit') {
        context.fillStyle = colours.kiln;
        context.beginPath();
        context.arc(at[0], at[1], 3, 0, Math.PI * 2);
        context.fill();
      }
      context.fillStyle = colours.ink;
      context.font = "12px 'Spline Sans Variable', sans-serif";
      context.fillText(marker.kind, at[0] + 13, at[1] + 4);
    }
    for (const divider of document.tables.divider.values())
      if (isSeen(divider.group, unseen)) drawDivider(drawing, divider.from, divider.to, divider.bottom, divider.top);
  }
  context.globalAlpha = 1;
}

function pennant(context: CanvasRenderingContext2D, [x, y]: readonly [number, number]): void {
  context.moveTo(x - 4, y + 8);
  context.lineTo(x - 4, y - 8);
  context.lineTo(x + 8, y - 3);
  context.lineTo(x - 4, y + 2);
}

function lozenge(context: CanvasRenderingContext2D, [x, y]: readonly [number, number]): void {
  context.moveTo(x, y - 7);
  context.lineTo(x + 5, y);
  context.lineTo(x, y + 7);
  context.lineTo(x - 5, y);
  context.closePath();
}

/** A divider: dashes with short ticks to one side on the plan, a dashed rectangle in the model. */
export function drawDivider(
  drawing: PlateDrawing,
  from: readonly [number, number],
  to: readonly [number, number],
  bottom: number,
  top: number,
): void {
  const { context, colours, view } = drawing;
  context.strokeStyle = colours.divider;
  context.lineWidth = 2;
  context.setLineDash([9, 5]);
  context.beginPath();
  const corners =
    view === 'plan'
      ? ([
          [from, bottom],
          [to, bottom],
        ] as const)
      : ([
          [from, bottom],
          [to, bottom],
          [to, top],
          [from, top],
          [from, bottom],
        ] as const);
  corners.forEach(([[x, z], y], i) => {
    const p = drawing.at(x, y, z);
    if (!p) return;
    if (i === 0) context.moveTo(...p);
    else context.lineTo(...p);
  });
  context.stroke();
  context.setLineDash([]);
  if (view !== 'plan') return;
  const a = drawing.at(from[0], 0, from[1]);
  const b = drawing.at(to[0], 0, to[1]);
  if (!a || !b) return;
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const ux = (b[0] - a[0]) / length;
  const uy = (b[1] - a[1]) / length;
  context.lineWidth = 1.2;
  context.beginPath();
  for (let s = 14; s < length; s += 28) {
    context.moveTo(a[0] + ux * s, a[1] + uy * s);
    context.lineTo(a[0] + ux * s - uy * 7, a[1] + uy * s + ux * 7);
  }
  context.stroke();
}

/** Outlines of what is selected: the edges of its own faces, at whatever angle they stand; of very many the tops of their bounds. */
export function drawSelection(
  drawing: PlateDrawing,
  selection: ReadonlyMap<string, PickItem>,
  facesOf: (item: PickItem) => readonly Float64Array[] | undefined,
): void {
  const { context, colours, view } = drawing;
  context.strokeStyle = colours.brine;
  context.lineWidth = view === 'plan' ? 2 : 1.2;
  context.beginPath();
  const isExact = selection.size <= MAX_EXACT_OUTLINES;
  for (const item of selection.values()) {
    for (const face of (isExact ? facesOf(item) : undefined) ?? [topOfBounds(item.bounds)]) {
      for (let i = 0; i < face.length; i += 3) {
        const p = drawing.at(face[i], face[i + 1], face[i + 2]);
        if (!p) continue;
        if (i === 0) context.moveTo(...p);
        else context.lineTo(...p);
      }
      context.closePath();
    }
  }
  context.stroke();
}

function topOfBounds({ min, max }: Box3): Float64Array {
  return Float64Array.of(
    min[0],
    max[1],
    min[2],
    max[0],
    max[1],
    min[2],
    max[0],
    max[1],
    max[2],
    min[0],
    max[1],
    max[2],
  );
}

function arrowhead(context: CanvasRenderingContext2D, [x, y]: readonly [number, number], turnDegrees: number): void {
  const angle = (-turnDegrees * Math.PI) / 180;
  const point = (forward: number, right: number): [number, number] => [
    x + Math.sin(angle) * forward + Math.cos(angle) * right,
    y - Math.cos(angle) * forward + Math.sin(angle) * right,
  ];
  context.moveTo(...point(11, 0));
  context.lineTo(...point(-7, 9));
  context.lineTo(...point(-7, -9));
  context.closePath();
}
