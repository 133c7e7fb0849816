import type { PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import { DragGesture, type Drag, type Hit } from './gesture';
import { drawLabel, drawLine, takePen } from './plan-drawing';

/** Half the length of the ticks at its ends, pixels. */
const TICK_PIXELS = 6;

/** What a rule tells: the distance, its parts along the axes, and how much higher its end lies where both heights are known. */
export function ruleText(from: PlanPoint, to: PlanPoint, rise: number | undefined): string {
  const [dx, dz] = [to[0] - from[0], to[1] - from[1]];
  const height = rise === undefined ? '' : ` Y ${rise.toFixed(2)}`;
  return `${Math.hypot(dx, dz, rise ?? 0).toFixed(2)} m   X ${dx.toFixed(2)}${height} Z ${dz.toFixed(2)}`;
}

/** Measures between the two ends of a drag; stays until the next. */
export class RuleGesture extends DragGesture {
  private ends: readonly [PlanPoint, PlanPoint] | undefined;

  /** @param heightAt of what lies under a point of the plan; undefined where nothing does */
  constructor(private readonly heightAt: (point: PlanPoint) => number | undefined) {
    super();
  }

  protected begin({ at: from }: Hit): Drag {
    this.ends = [from, from];
    const to = ({ at }: Hit): void => {
      this.ends = [from, at];
    };
    return { move: to, up: to, draw: () => undefined };
  }

  override cancel(): boolean {
    const had = this.ends !== undefined;
    this.ends = undefined;
    return super.cancel() || had;
  }

  override draw(drawing: PlateDrawing): void {
    if (!this.ends) return;
    const [from, to] = this.ends;
    const { context, at } = drawing;
    takePen(drawing);
    drawLine(drawing, [from, to], false);
    const [p, q] = [at(from[0], 0, from[1]), at(to[0], 0, to[1])];
    if (!p || !q) return;
    const length = Math.hypot(q[0] - p[0], q[1] - p[1]);
    if (length > 0) {
      const [tx, ty] = [((q[1] - p[1]) / length) * TICK_PIXELS, ((p[0] - q[0]) / length) * TICK_PIXELS];
      context.beginPath();
      for (const [x, y] of [p, q]) {
        context.moveTo(x - tx, y - ty);
        context.lineTo(x + tx, y + ty);
      }
      context.stroke();
    }
    const [low, high] = [this.heightAt(from), this.heightAt(to)];
    drawLabel(drawing, to, ruleText(from, to, low === undefined || high === undefined ? undefined : high - low));
  }
}
