import { Injectable, computed, effect, inject } from '@angular/core';
import type { PlanPointer, PlateDrawing } from '../../../plate/plate-drawing';
import { LayoutDesk } from '../editing/layout-desk';
import type { Gesture } from '../plan/gesture';
import { PlanSurface } from '../plan/plan-surface';
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

  constructor() {
    // What is half done goes with its tool.
    effect((dispose) => {
      const gesture = this.current();
      dispose(() => gesture?.cancel());
    });
  }

  pointer(pointer: PlanPointer): void {
    const gesture = this.current();
    if (pointer.phase === 'cancel') gesture?.cancel();
    else gesture?.[pointer.phase](this.surface.hitOf(pointer));
    this.surface.redraw();
  }

  /** Lets go of whatever is half done. True when there was something. */
  cancel(): boolean {
    const had = this.current()?.cancel() ?? false;
    this.surface.redraw();
    return had;
  }

  /** Closes the outline, or ends the path, that is being drawn. */
  finish(): void {
    this.current()?.finish();
    this.surface.redraw();
  }

  /** What is half done, drawn over the plan. */
  draw(drawing: PlateDrawing): void {
    if (drawing.view === 'plan') this.current()?.draw(drawing);
  }
}
