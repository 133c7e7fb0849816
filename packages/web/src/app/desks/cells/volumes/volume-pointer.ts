import type { PlanPoint } from '@stravel/core';
import type { PlanPointer } from '../../../plate/plate-drawing';
import type { LoadVolumes } from './load-volumes';

/** A press that moves no farther than this is a click, pixels. */
const CLICK_PIXELS = 4;

/** The Volume tool on the plan: a drag draws a box; a click takes a volume in hand, and then adds cells to it or takes them away. */
export class VolumePointer {
  private from: PlanPoint | undefined;

  /**
   * @param cellAt key of the cell with content at a point
   * @param dragged told the corners of the box as it is drawn, undefined when that is over
   */
  constructor(
    private readonly volumes: LoadVolumes,
    private readonly cellAt: (pointer: PlanPointer) => string | undefined,
    private readonly snap: (pointer: PlanPointer) => PlanPoint,
    private readonly dragged: (corners: readonly [PlanPoint, PlanPoint] | undefined) => void,
  ) {}

  pointer(pointer: PlanPointer): void {
    const { from } = this;
    const to = this.snap(pointer);
    if (pointer.phase === 'down') this.from = to;
    else if (pointer.phase === 'move') {
      if (from) this.dragged([from, to]);
    } else this.drop();
    if (pointer.phase !== 'up' || !from) return;
    const isClick = Math.hypot(to[0] - from[0], to[1] - from[1]) <= CLICK_PIXELS * pointer.metresPerPixel;
    if (isClick) this.click(pointer);
    else void this.volumes.draw(from, to);
  }

  /** Ends a drag without a box. @returns whether there was one */
  drop(): boolean {
    const wasOn = this.from !== undefined;
    this.from = undefined;
    this.dragged(undefined);
    return wasOn;
  }

  private click(pointer: PlanPointer): void {
    const cell = this.cellAt(pointer);
    if (!this.volumes.inHand()) this.volumes.chosen.set(this.volumes.at(pointer.x, pointer.z)?.id ?? '');
    else if (cell !== undefined) void this.volumes.toggle(cell);
  }
}
