import type { Vector3 } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import {
  draggedExtent,
  handlesOf,
  outlineOf,
  stretchedTo,
  yawTowards,
  type Handle,
  type HandleFrame,
  type PlanExtent,
} from './frame';
import type { Drag, Hit } from './gesture';
import { nearestGrip, type Grips } from './grips';
import { drawLabel, drawLine, sizeText, takePen } from './plan-drawing';

const GRIP_SIZE_PIXELS = 8;
/** Turning by the knob goes in these steps unless Alt is held. */
const TURN_STEP_DEGREES = 15;

/** A thing that is stretched and turned by its grips. */
export interface Gripped {
  readonly frame: HandleFrame;
  /** Size in its own frame, metres. */
  readonly size: Vector3;
  stretch(size: Vector3, position: Vector3): unknown;
  /** @param yaw degrees */
  turnTo(yaw: number): unknown;
}

/** Grips at the sides and corners of an upright thing, and a knob that turns it. */
export class FrameGrips implements Grips {
  /** @param gripped the thing that is selected, undefined when it carries no grips */
  constructor(private readonly gripped: () => Gripped | undefined) {}

  take(hit: Hit): Drag | undefined {
    const gripped = this.gripped();
    const near = gripped && nearestGrip(handlesOf(gripped.frame, hit.metresPerPixel), hit);
    if (!gripped || !near) return undefined;
    return near.handle.kind === 'turn' ? turning(gripped) : stretching(gripped, near.handle);
  }

  draw(drawing: PlateDrawing): void {
    const gripped = this.gripped();
    if (!gripped) return;
    const { context, colours, scale } = drawing;
    takePen(drawing);
    context.fillStyle = colours.plate;
    for (const { handle, at } of handlesOf(gripped.frame, 1 / scale)) {
      const p = drawing.at(at[0], 0, at[1]);
      if (!p) continue;
      context.beginPath();
      if (handle.kind === 'turn') context.arc(p[0], p[1], GRIP_SIZE_PIXELS / 2 + 1, 0, Math.PI * 2);
      else context.rect(p[0] - GRIP_SIZE_PIXELS / 2, p[1] - GRIP_SIZE_PIXELS / 2, GRIP_SIZE_PIXELS, GRIP_SIZE_PIXELS);
      context.fill();
      context.stroke();
    }
  }
}

function stretching(gripped: Gripped, handle: Extract<Handle, { kind: 'size' }>): Drag {
  const { frame } = gripped;
  let to: PlanExtent | undefined;
  return {
    move: ({ at }) => {
      to = draggedExtent(frame, handle, at);
    },
    up: () => {
      if (!to) return;
      const { size, position } = stretchedTo(frame, gripped.size, to);
      gripped.stretch(size, position);
    },
    draw: (drawing) => {
      if (!to) return;
      const corners = outlineOf(frame, to);
      takePen(drawing);
      drawLine(drawing, corners, true);
      drawLabel(drawing, corners[2], sizeText(to.high[0] - to.low[0], to.high[1] - to.low[1]));
    },
  };
}

function turning(gripped: Gripped): Drag {
  const { frame } = gripped;
  let yaw: number | undefined;
  return {
    move: ({ pointer, isFree }) => {
      yaw = yawTowards(frame, pointer, isFree ? 0 : TURN_STEP_DEGREES);
    },
    up: () => {
      if (yaw !== undefined) gripped.turnTo(yaw);
    },
    draw: (drawing) => {
      const knob = handlesOf(frame, 1 / drawing.scale).at(-1);
      if (yaw !== undefined && knob) drawLabel(drawing, knob.at, `${yaw}°`);
    },
  };
}
