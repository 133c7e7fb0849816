import type { ItemKind, PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import type { LayoutDesk } from '../editing/layout-desk';
import { refOf } from '../editing/placed-item';
import { isFar } from '../plan/drags';
import { DragGesture, type Drag, type Hit } from '../plan/gesture';
import type { Grips } from '../plan/grips';
import { drawLabel, drawLine, drawRectangle, movedLoop, stepText, takePen } from '../plan/plan-drawing';
import type { PlanSurface } from '../plan/plan-surface';

/** Selects by click and by box, moves what is selected, and drags the grips of one thing. */
export class SelectGesture extends DragGesture {
  private isMoving = false;

  /** @param gripsOf a kind; undefined for those that have none */
  constructor(
    private readonly desk: LayoutDesk,
    private readonly surface: PlanSurface,
    private readonly gripsOf: (kind: ItemKind) => Grips | undefined,
  ) {
    super();
  }

  protected begin(hit: Hit): Drag {
    this.isMoving = false;
    const grip = this.grips()?.take(hit);
    if (grip) return grip;
    // Only what is selected is dragged: a press on anything else may begin a box, so that a floor under everything moves only when meant.
    const { selection } = this.desk.state();
    const isOnSelection = !hit.adds && hit.things().some(({ id }) => selection.some((ref) => ref.id === id));
    return isOnSelection ? this.moving(hit) : this.boxing(hit);
  }

  override draw(drawing: PlateDrawing): void {
    if (!this.drag || !this.isMoving) this.grips()?.draw(drawing);
    super.draw(drawing);
  }

  private grips(): Grips | undefined {
    const one = this.desk.one();
    return one && !this.desk.isItemLocked(refOf(one)) ? this.gripsOf(one.kind) : undefined;
  }

  private moving({ pointer: from }: Hit): Drag {
    this.isMoving = true;
    let by: PlanPoint | undefined;
    return {
      move: (hit) => {
        if (by || isFar(from, hit))
          by = this.surface.onGrid([hit.pointer[0] - from[0], hit.pointer[1] - from[1]], hit.isFree);
      },
      up: (hit) => {
        if (!by) this.clickAgain(hit);
        else if (by[0] !== 0 || by[1] !== 0) void this.desk.move([by[0], 0, by[1]]);
      },
      draw: (drawing) => {
        if (!by) return;
        takePen(drawing);
        for (const face of this.surface.outlines()) drawLine(drawing, movedLoop(face, by), true);
        drawLabel(drawing, [from[0] + by[0], from[1] + by[1]], stepText(by));
      },
    };
  }

  /** A click on what is selected already goes to what lies below it. */
  private clickAgain(hit: Hit): void {
    const things = hit.things();
    const { selection } = this.desk.state();
    const at = selection.length === 1 ? things.findIndex(({ id }) => selection[0].id === id) : -1;
    if (things.length > 0) this.desk.pick(things[(at + 1) % things.length], false);
  }

  private boxing({ pointer: from, adds }: Hit): Drag {
    let to = from;
    return {
      move: ({ pointer }) => {
        to = pointer;
      },
      up: (hit) => {
        if (!isFar(from, hit)) {
          this.desk.pick(hit.things().at(0), adds);
          return;
        }
        const { selection } = this.desk.state();
        const found = this.surface.within(from, hit.pointer);
        this.desk.select(
          adds ? [...selection, ...found.filter(({ id }) => !selection.some((ref) => ref.id === id))] : found,
        );
      },
      draw: (drawing) => {
        takePen(drawing);
        drawRectangle(drawing, from, to, [4, 4]);
      },
    };
  }
}
