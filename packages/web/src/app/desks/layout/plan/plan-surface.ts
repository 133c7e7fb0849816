import { Injectable, inject, signal } from '@angular/core';
import { CoreError, toMicro, type ItemKind, type ItemOfKind, type PlanPoint } from '@stravel/core';
import { isMade } from '../../../document/level/level-sections';
import { LevelView } from '../../../plate/level-view';
import type { PickItem } from '../../../plate/pick-item';
import type { PlanPointer } from '../../../plate/plate-drawing';
import { LayoutDesk } from '../editing/layout-desk';
import type { ItemRef } from '../store/layout-store';
import type { Hit } from './gesture';
import { snapPoint } from './snapping';

/** Things whose outlines follow a drag. */
const MAX_DRAGGED_OUTLINES = 300;

/** The plan as gestures meet it: what lies under the pointer, to what it snaps, where new things stand. */
@Injectable()
export class PlanSurface {
  private readonly desk = inject(LayoutDesk);
  private readonly range = inject(LevelView).range;
  private readonly drawn = signal(0);
  /** Another number whenever what is half done is to be drawn anew. */
  readonly drawing = this.drawn.asReadonly();

  redraw(): void {
    this.drawn.update((n) => n + 1);
  }

  hitOf(pointer: PlanPointer): Hit {
    const { x, z, metresPerPixel, event } = pointer;
    return {
      at: this.snapped(pointer),
      pointer: [x, z],
      metresPerPixel,
      adds: event.shiftKey,
      isFree: event.altKey,
      things: () => pointer.hits().filter((item) => !this.isLocked(item)),
    };
  }

  /** A point or a step on the grid; to the micrometre where nothing snaps. */
  onGrid([x, z]: PlanPoint, isFree: boolean): PlanPoint {
    const { snapMetres } = this.desk.state();
    if (snapMetres <= 0 || isFree) return [toMicro(x), toMicro(z)];
    return [toMicro(Math.round(x / snapMetres) * snapMetres), toMicro(Math.round(z / snapMetres) * snapMetres)];
  }

  /** Height on which new things stand, a little above the bottom of the heights shown. */
  floor(): number {
    return Math.round((this.range().bottom + 0.5) * 1000) / 1000;
  }

  /** Height on which a new thing stands at a point: of what lies under it when things are to stand on it, else the floor. */
  floorAt([x, z]: PlanPoint): number {
    const onSurface = this.desk.state().snapTargets.includes('surfaces');
    const below = onSurface ? this.desk.plate()?.surfaceBelow([x, this.range().top, z], new Set()) : undefined;
    return below ?? this.floor();
  }

  /** What lies within a rectangle of the plan and is not locked. */
  within([x0, z0]: PlanPoint, [x1, z1]: PlanPoint): PickItem[] {
    return (this.desk.plate()?.itemsWithin(x0, z0, x1, z1) ?? []).filter((item) => !this.isLocked(item));
  }

  /** Face loops of what is selected, xyz triples; not more than can be drawn while it is dragged. */
  outlines(): Float64Array[] {
    const plate = this.desk.plate();
    return this.desk
      .state()
      .selection.slice(0, MAX_DRAGGED_OUTLINES)
      .flatMap(({ stratum, kind, id }) => {
        const item = plate?.item(stratum, kind, id);
        return item ? (plate?.facesOf(item) ?? []) : [];
      });
  }

  /** Adds what is made; says why when it cannot be. @returns whether something was made */
  make<K extends ItemKind>(kind: K, label: string, made: () => ItemOfKind[K] | undefined): boolean {
    try {
      const item = made();
      if (item) void this.desk.add(kind, item, label);
      return item !== undefined;
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.desk.notify(error.message);
      return false;
    }
  }

  private isLocked(item: ItemRef): boolean {
    return isMade(item.stratum) || this.desk.isItemLocked(item);
  }

  private snapped({ x, z, metresPerPixel, event }: PlanPointer): PlanPoint {
    const plate = this.desk.plate();
    const target = event.altKey
      ? undefined
      : snapPoint({
          at: [x, z],
          metresPerPixel,
          targets: this.desk.state().snapTargets,
          near: (...near) => plate?.itemsNear(...near) ?? [],
          facesOf: (item) => plate?.facesOf(item),
          pivotOf: (item) => this.desk.pivotOf(item),
        });
    return target ?? this.onGrid([x, z], event.altKey);
  }
}
