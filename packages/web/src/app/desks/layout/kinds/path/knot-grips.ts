import { pull, type Path, type PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../../plate/plate-drawing';
import type { LayoutDesk } from '../../editing/layout-desk';
import type { Drag, Hit } from '../../plan/gesture';
import { nearestGrip, type Grips } from '../../plan/grips';
import { drawLabel, drawLine, stepText, takePen } from '../../plan/plan-drawing';
import type { PathsDesk } from './paths-desk';

/** A knot of a path, or an end of its handle, as a grip. */
export interface KnotGrip {
  readonly index: number;
  /** 0 the knot itself; the ends of its handle lead on and back. */
  readonly end: -1 | 0 | 1;
  readonly at: PlanPoint;
}

/** More handles than this only hide the path. */
const MAX_HANDLES = 100;

/** What a path is drawn by on the plan: its knots, and of a smooth one the ends of their handles. */
export function knotGrips({ form, closed, knots }: Path): KnotGrip[] {
  const grips = knots.map(({ position }, index): KnotGrip => ({ index, end: 0, at: [position[0], position[2]] }));
  if (form !== 'curve' || knots.length > MAX_HANDLES) return grips;
  return grips.flatMap((grip) => {
    const [dx, , dz] = pull(knots, closed, grip.index);
    const [x, z] = grip.at;
    return [
      grip,
      { ...grip, end: 1 as const, at: [x + dx, z + dz] as const },
      { ...grip, end: -1 as const, at: [x - dx, z - dz] as const },
    ];
  });
}

/** Drags the knots of the selected path, and of a smooth one their handles. */
export class KnotGrips implements Grips {
  constructor(
    private readonly desk: Pick<LayoutDesk, 'oneOf'>,
    private readonly paths: Pick<PathsDesk, 'moveKnot' | 'moveHandle'>,
  ) {}

  take(hit: Hit): Drag | undefined {
    const near = nearestGrip(this.grips(), hit);
    if (!near) return undefined;
    const { index, end, at: from } = near;
    let to: PlanPoint | undefined;
    return {
      move: ({ at }) => {
        to = at;
      },
      up: () => {
        if (to) void (end === 0 ? this.paths.moveKnot(index, to) : this.paths.moveHandle(index, end, to));
      },
      draw: (drawing) => {
        if (!to) return;
        takePen(drawing);
        drawLine(drawing, [from, to], false);
        drawLabel(drawing, to, stepText([to[0] - from[0], to[1] - from[1]]));
      },
    };
  }

  /** Handles: a thin line with a round end. The path itself is drawn as what is selected. */
  draw(drawing: PlateDrawing): void {
    const { context, colours, at } = drawing;
    const grips = this.grips();
    const knots = new Map(grips.filter(({ end }) => end === 0).map(({ index, at: place }) => [index, place]));
    context.strokeStyle = colours.brine;
    context.fillStyle = colours.plate;
    context.lineWidth = 1;
    for (const { index, end, at: place } of grips) {
      const knot = knots.get(index);
      if (end === 0 || !knot) continue;
      const [from, to] = [at(knot[0], 0, knot[1]), at(place[0], 0, place[1])];
      if (!from || !to) continue;
      context.beginPath();
      context.moveTo(...from);
      context.lineTo(...to);
      context.stroke();
      context.beginPath();
      context.arc(to[0], to[1], 3.5, 0, Math.PI * 2);
      context.fill();
      context.stroke();
    }
  }

  private grips(): KnotGrip[] {
    const path = this.desk.oneOf('path')?.item;
    return path ? knotGrips(path) : [];
  }
}
