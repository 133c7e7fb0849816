import { heldAt } from '@stravel/core';
import type { PlateDrawing } from '../../../../plate/plate-drawing';
import type { LayoutDesk } from '../../editing/layout-desk';
import { TwoPointGesture } from '../../plan/drags';
import type { Gesture, Hit } from '../../plan/gesture';
import { OutlineGesture } from '../../plan/outline-gesture';
import type { PlanSurface } from '../../plan/plan-surface';
import { draggedVolume, outlinedVolume } from './volume-makers';

/** Draws a volume of the chosen form: a prism corner by corner, others by a drag. */
export class VolumeGesture implements Gesture {
  private readonly dragged: Gesture;
  private readonly outlined: Gesture;

  constructor(
    private readonly desk: LayoutDesk,
    surface: PlanSurface,
  ) {
    this.dragged = new TwoPointGesture('area', (from, to) =>
      surface.make('volume', 'add volume', () =>
        draggedVolume(desk.state(), this.name(), surface.floorAt(from), from, to),
      ),
    );
    this.outlined = new OutlineGesture({
      closesFrom: 3,
      least: 3,
      take: (points) =>
        surface.make('volume', 'add volume', () =>
          outlinedVolume(desk.state(), this.name(), surface.floorAt(points[0]), points),
        ),
    });
  }

  get clicks(): Gesture['clicks'] {
    return this.current().clicks;
  }

  down(hit: Hit): void {
    this.current().down(hit);
  }

  move(hit: Hit): void {
    this.current().move(hit);
  }

  up(hit: Hit): void {
    this.current().up(hit);
  }

  cancel(): boolean {
    const [dragged, outlined] = [this.dragged.cancel(), this.outlined.cancel()];
    return dragged || outlined;
  }

  finish(): void {
    this.current().finish();
  }

  draw(drawing: PlateDrawing): void {
    this.current().draw(drawing);
  }

  private current(): Gesture {
    return this.desk.state().volumeForm === 'prism' ? this.outlined : this.dragged;
  }

  /** New ones are called as their kind. */
  private name(): string {
    return heldAt(this.desk.tables().entry, this.desk.state().volumeKind)?.name ?? 'volume';
  }
}
