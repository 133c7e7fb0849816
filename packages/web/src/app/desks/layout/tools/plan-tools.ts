import { Injectable, computed, effect, inject } from '@angular/core';
import type { PlanPointer, PlateDrawing } from '../../../plate/plate-drawing';
import { LayoutDesk } from '../editing/layout-desk';
import type { Gesture } from '../plan/gesture';
import { PlanSurface } from '../plan/plan-surface';
import { KeyCursor } from './key-cursor';
import { TOOL_FAMILIES } from './tool-families';

/** Leads the pointer over the plan to the gesture of the chosen tool. */
@Injectable()
export class PlanTools {
  private readonly surface = inject(PlanSurface);
  private readonly tool = computed(() => this.desk.state().tool);
  private readonly desk = inject(LayoutDesk);
  private readonly gestures: ReadonlyMap<string, Gesture> = new Map(
    TOOL_FAMILIES.flatMap(({ tools }) => Object.entries(tools).map(([tool, make]) => [tool, make()] as const)),
  );
  private readonly current = computed(() => this.gestures.get(this.tool()));
  private readonly cursor = new KeyCursor();

  constructor() {
    // What is half done goes with its tool.
    effect((dispose) => {
      const gesture = this.current();
      dispose(() => {
        gesture?.cancel();
        this.cursor.release();
      });
    });
  }

  pointer(pointer: PlanPointer): void {
    const gesture = this.current();
    if (pointer.phase === 'down') this.cursor.end();
    if (pointer.phase === 'cancel') gesture?.cancel();
    else gesture?.[pointer.phase](this.surface.hitOf(pointer));
    this.surface.redraw();
  }

  /** Lets go of whatever is half done. True when there was something. */
  cancel(): boolean {
    let had = this.current()?.cancel() ?? false;
    if (had) this.cursor.release();
    else if (this.cursor.isOn) {
      this.cursor.end();
      had = true;
    }
    this.surface.redraw();
    return had;
  }

  /**
   * Closes the outline, or ends the path, that is being drawn. Where none is, the plan is worked by keys from then on.
   * @param isOnPlan whether the plan has the focus
   */
  finish(isOnPlan = false): void {
    const gesture = this.current();
    if (!gesture || this.tool() === 'select') return;
    const view = this.desk.plate()?.planView();
    if (this.cursor.isOn) this.cursor.enter(gesture);
    else if (gesture.clicks === 'begun' || !isOnPlan || !view) gesture.finish();
    else this.cursor.begin(this.surface.onGrid(view.middle, false), view.metresPerPixel);
    this.surface.redraw();
  }

  /** Where the cursor is, for those who hear the plan; '' while the plan is not worked by keys. */
  readonly cursorNote = computed(() => {
    this.surface.drawing();
    const place = this.cursor.place;
    return place ? `, cursor at ${place[0]}, ${place[1]}` : '';
  });

  /** Whether the plan is worked by keys. */
  hasCursor(): boolean {
    return this.cursor.isOn;
  }

  /** Moves the cursor, metres. @returns false where there is none */
  step(dx: number, dz: number): boolean {
    const gesture = this.current();
    if (!gesture || !this.cursor.isOn) return false;
    this.cursor.step(gesture, dx, dz);
    this.surface.redraw();
    return true;
  }

  /** Takes a key of a length. @returns whether it was one */
  type(key: string): boolean {
    const gesture = this.current();
    const isTaken = gesture !== undefined && this.cursor.type(gesture, key);
    if (isTaken) this.surface.redraw();
    return isTaken;
  }

  /** What is half done, drawn over the plan. */
  draw(drawing: PlateDrawing): void {
    if (drawing.view !== 'plan') return;
    this.current()?.draw(drawing);
    this.cursor.draw(drawing);
  }
}
