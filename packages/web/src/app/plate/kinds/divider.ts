import type { PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../plate-drawing';
import { isNearLine } from './plan-outline';
import { boxesOfRecords, type PlateKind } from './plate-kind';

type DividerKind = PlateKind<'divider'>;

const bounds: DividerKind['bounds'] = ({ from, to, bottom, top }) => ({
  min: [Math.min(from[0], to[0]), bottom, Math.min(from[1], to[1])],
  max: [Math.max(from[0], to[0]), top, Math.max(from[1], to[1])],
});

/** A divider: dashes with short ticks to one side on the plan, a dashed rectangle in the model. */
export function drawDivider(drawing: PlateDrawing, from: PlanPoint, to: PlanPoint, bottom: number, top: number): void {
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

export const DIVIDER_PLATE: DividerKind = {
  rank: 3,
  bounds,
  boxes: boxesOfRecords(bounds),
  isOver: ({ from, to }, spot) =>
    isNearLine({ ...spot, reach: spot.reach * 2 }, Float64Array.of(from[0], 0, from[1], to[0], 0, to[1])),
  marks: (table, drawing, env) => {
    for (const { group, from, to, bottom, top } of table.values()) {
      if (!env.isSeen(group)) continue;
      drawing.context.globalAlpha = env.alphaOf(bottom, top);
      drawDivider(drawing, from, to, bottom, top);
    }
  },
};
