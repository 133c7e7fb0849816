import type { PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import type { Gesture, Hit } from './gesture';
import { drawLine, takePen } from './plan-drawing';

/** A click this near to the first corner closes an outline. */
const CLOSING_PIXELS = 10;

/** What is drawn corner by corner. */
export interface Outline {
  /** Corners from which on a click on the first one ends it; undefined where it leads on. */
  readonly closesFrom?: number;
  /** Corners without which there is nothing. */
  readonly least: number;
  /** @param isRing whether it was ended on its first corner @returns whether it was made; what was drawn stays otherwise */
  readonly take: (points: readonly PlanPoint[], isRing: boolean) => boolean;
}

/** Clicks a corner after the other; Enter ends it. */
export class OutlineGesture implements Gesture {
  private points: PlanPoint[] = [];
  private cursor: PlanPoint = [0, 0];

  constructor(private readonly outline: Outline) {}

  get clicks(): 'none' | 'begun' {
    return this.points.length > 0 ? 'begun' : 'none';
  }

  down({ at, metresPerPixel }: Hit): void {
    this.cursor = at;
    const { closesFrom = Infinity } = this.outline;
    const first = this.points.at(0);
    const isOnFirst =
      first !== undefined && Math.hypot(at[0] - first[0], at[1] - first[1]) < CLOSING_PIXELS * metresPerPixel;
    if (isOnFirst && this.points.length >= closesFrom) this.end(true);
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
    this.end(false);
  }

  draw(drawing: PlateDrawing): void {
    if (this.points.length === 0) return;
    takePen(drawing);
    drawLine(drawing, [...this.points, this.cursor], false);
  }

  private end(isRing: boolean): void {
    if (this.points.length >= this.outline.least && this.outline.take(this.points, isRing)) this.points = [];
  }
}
