import type { PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import type { Gesture, Hit } from './gesture';
import { drawLine, takePen } from './plan-drawing';

/** A click this near to the first corner closes an outline. */
const CLOSING_PIXELS = 10;

/** What is drawn corner by corner. */
export interface Outline {
  /** Whether a click on the first corner ends it. */
  readonly isClosed: boolean;
  /** Corners without which there is nothing. */
  readonly least: number;
  /** @returns whether it was made; what was drawn stays otherwise */
  readonly take: (points: readonly PlanPoint[]) => boolean;
}

/** Clicks a corner after the other; Enter ends it. */
export class OutlineGesture implements Gesture {
  private points: PlanPoint[] = [];
  private cursor: PlanPoint = [0, 0];

  constructor(private readonly outline: Outline) {}

  down({ at, metresPerPixel }: Hit): void {
    this.cursor = at;
    const { isClosed, least } = this.outline;
    const first = this.points.at(0);
    const isOnFirst =
      first !== undefined && Math.hypot(at[0] - first[0], at[1] - first[1]) < CLOSING_PIXELS * metresPerPixel;
    if (isClosed && isOnFirst && this.points.length >= least) this.finish();
    else this.points.push(at);
  }

  move({ at }: Hit): void {
    this.cursor = at;
  }

  up({ at }: Hit): void {
    this.cursor = at;
  }

  cancel(): boolean {
    const had = this.points.length > 0;
    this.points = [];
    return had;
  }

  finish(): void {
    if (this.points.length >= this.outline.least && this.outline.take(this.points)) this.points = [];
  }

  draw(drawing: PlateDrawing): void {
    if (this.points.length === 0) return;
    takePen(drawing);
    drawLine(drawing, [...this.points, this.cursor], false);
  }
}
