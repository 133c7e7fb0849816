import { volumeBounds, type CutLevel, type PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import type { RuleShown } from './load-volumes';

/** What is drawn of the volumes that load cells. */
export interface VolumesDrawn {
  readonly rules: readonly RuleShown[];
  /** Id of the volume in hand; '' for none. */
  readonly chosen: string;
  /** Corners of a box that is being drawn. */
  readonly dragged: readonly [PlanPoint, PlanPoint] | undefined;
}

/** A frame within each cell that a volume loads and a line to it from the volume: of the one in hand strong, of others thin. Plan only. */
export function drawLoadVolumes(
  { context, colours, at, view }: PlateDrawing,
  cut: Pick<CutLevel, 'cells'>,
  { rules, chosen, dragged }: VolumesDrawn,
): void {
  if (view !== 'plan') return;
  const cells = new Map(cut.cells.map((cell) => [cell.key, cell]));
  context.strokeStyle = colours.volume;
  for (const { rule, volume } of rules) {
    if (!volume) continue;
    const isInHand = rule.volume === chosen;
    const { min, max } = volumeBounds(volume);
    const middle = at((min[0] + max[0]) / 2, 0, (min[2] + max[2]) / 2);
    context.lineWidth = isInHand ? 2.5 : 1;
    context.globalAlpha = isInHand ? 1 : 0.55;
    for (const key of rule.cells) {
      const cell = cells.get(key);
      const a = cell && at(cell.min[0], 0, cell.min[1]);
      const b = cell && at(cell.max[0], 0, cell.max[1]);
      if (!a || !b || !middle) continue;
      context.setLineDash([2, 3]);
      context.strokeRect(a[0] + 4, a[1] + 4, b[0] - a[0] - 8, b[1] - a[1] - 8);
      context.setLineDash([]);
      context.beginPath();
      context.moveTo(...middle);
      context.lineTo((a[0] + b[0]) / 2, (a[1] + b[1]) / 2);
      context.stroke();
    }
  }
  context.globalAlpha = 1;
  if (!dragged) return;
  const [a, b] = dragged.map(([x, z]) => at(x, 0, z));
  if (!a || !b) return;
  context.lineWidth = 2;
  context.setLineDash([6, 4]);
  context.strokeRect(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.abs(b[0] - a[0]), Math.abs(b[1] - a[1]));
  context.setLineDash([]);
}
