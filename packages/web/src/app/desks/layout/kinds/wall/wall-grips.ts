import type { PlanPoint, Wall, WallOpening } from '@stravel/core';
import type { PlateDrawing } from '../../../../plate/plate-drawing';
import type { LayoutDesk } from '../../editing/layout-desk';
import type { Drag, Hit } from '../../plan/gesture';
import { nearestGrip, type Grips } from '../../plan/grips';
import { drawLabel, drawLine, stepText, takePen } from '../../plan/plan-drawing';
import { drawOpening, middleOfOpening } from './opening-drawing';
import type { WallsDesk } from './walls-desk';

/** A corner of a wall, or the middle of an opening in it. */
export type WallGrip =
  | { readonly at: PlanPoint; readonly corner: number }
  | { readonly at: PlanPoint; readonly corner: null; readonly opening: WallOpening };

const GRIP_SIDE_PIXELS = 7;
const GRIP_RADIUS_PIXELS = 4.5;

/** What a wall is changed by on the plan: openings before corners, as they are smaller. */
export function wallGrips(wall: Wall): WallGrip[] {
  return [
    ...wall.openings.flatMap((opening): WallGrip[] => {
      const at = middleOfOpening(wall, opening);
      return at ? [{ at, corner: null, opening }] : [];
    }),
    ...wall.corners.map(({ position }, corner): WallGrip => ({ at: position, corner })),
  ];
}

/** Drags the corners of the selected wall, and its openings along it. */
export class WallGrips implements Grips {
  constructor(
    private readonly desk: Pick<LayoutDesk, 'oneOf'>,
    private readonly walls: Pick<WallsDesk, 'moveCorner' | 'changeOpening' | 'movedOpening'>,
  ) {}

  take(hit: Hit): Drag | undefined {
    const one = this.desk.oneOf('wall');
    const near = one && nearestGrip(wallGrips(one.item), hit);
    if (!near) return undefined;
    let to: PlanPoint | undefined;
    if (near.corner === null) {
      const { opening } = near;
      const moved = (at: PlanPoint): WallOpening => this.walls.movedOpening(one.item, opening, at);
      return {
        move: ({ at }) => {
          to = at;
        },
        up: () => {
          if (!to) return;
          const { corner, offsetMetres } = moved(to);
          if (corner !== opening.corner || offsetMetres !== opening.offsetMetres)
            void this.walls.changeOpening(one, opening.id, { corner, offsetMetres });
        },
        draw: (drawing) => {
          if (to) drawOpening(drawing, one.item, moved(to));
        },
      };
    }
    const { at: from, corner } = near;
    return {
      move: ({ at }) => {
        to = at;
      },
      up: () => {
        if (to && (to[0] !== from[0] || to[1] !== from[1])) void this.walls.moveCorner(one, corner, to);
      },
      draw: (drawing) => {
        if (!to) return;
        takePen(drawing);
        drawLine(drawing, [from, to], false);
        drawLabel(drawing, to, stepText([to[0] - from[0], to[1] - from[1]]));
      },
    };
  }

  draw({ context, colours, at }: PlateDrawing): void {
    const wall = this.desk.oneOf('wall')?.item;
    if (!wall) return;
    context.strokeStyle = colours.brine;
    context.fillStyle = colours.plate;
    context.lineWidth = 1.5;
    for (const grip of wallGrips(wall)) {
      const p = at(grip.at[0], wall.baseMetres, grip.at[1]);
      if (!p) continue;
      context.beginPath();
      if (grip.corner === null) context.arc(p[0], p[1], GRIP_RADIUS_PIXELS, 0, Math.PI * 2);
      else context.rect(p[0] - GRIP_SIDE_PIXELS / 2, p[1] - GRIP_SIDE_PIXELS / 2, GRIP_SIDE_PIXELS, GRIP_SIDE_PIXELS);
      context.fill();
      context.stroke();
    }
  }
}
