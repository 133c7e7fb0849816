import type { PlanPoint } from '@stravel/core';
import type { PickItem } from '../../../plate/pick-item';
import type { PlateDrawing } from '../../../plate/plate-drawing';

/** Where the pointer is on the plan. Metres. */
export interface Hit {
  /** Snapped to things or to the grid. */
  readonly at: PlanPoint;
  /** Where it is itself. */
  readonly pointer: PlanPoint;
  readonly metresPerPixel: number;
  /** Adds to what is selected: Shift. */
  readonly adds: boolean;
  /** Nothing snaps: Alt. */
  readonly isFree: boolean;
  /** What lies there and is not locked, wanted first. */
  things(): PickItem[];
}

/** What the pointer does on the plan while a tool is chosen. */
export interface Gesture {
  down(hit: Hit): void;
  move(hit: Hit): void;
  up(hit: Hit): void;
  /** Lets go of whatever is half done. @returns whether there was something */
  cancel(): boolean;
  /** Ends what is made corner by corner, as Enter does. */
  finish(): void;
  /** What is half done, drawn over the plan. */
  draw(drawing: PlateDrawing): void;
  /** Whether something is half done, of what is made click by click; absent for what is dragged. */
  readonly clicks?: 'none' | 'begun' | undefined;
}

/** What goes on between a press and the release. */
export interface Drag {
  move(hit: Hit): void;
  /** Let go of. */
  up(hit: Hit): void;
  draw(drawing: PlateDrawing): void;
}

/** A gesture that is one drag. */
export abstract class DragGesture implements Gesture {
  protected drag: Drag | undefined;

  /** What a press begins, undefined when nothing. */
  protected abstract begin(hit: Hit): Drag | undefined;

  down(hit: Hit): void {
    this.drag = this.begin(hit);
  }

  move(hit: Hit): void {
    this.drag?.move(hit);
  }

  up(hit: Hit): void {
    const { drag } = this;
    this.drag = undefined;
    drag?.up(hit);
  }

  cancel(): boolean {
    const had = this.drag !== undefined;
    this.drag = undefined;
    return had;
  }

  finish(): void {
    // It ends by letting go.
  }

  draw(drawing: PlateDrawing): void {
    this.drag?.draw(drawing);
  }
}
