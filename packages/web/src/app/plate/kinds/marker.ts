import type { Marker } from '@stravel/core';
import type { PlateDrawing } from '../plate-drawing';
import { boxesOfRecords, type MarksEnv, type PlateKind } from './plate-kind';

type MarkerKind = PlateKind<'marker'>;

const REACH_METRES = 0.5;
const HEIGHT_METRES = 1.8;
/** Square pixels of a mark. */
const MARK_SIZE = 400;

const bounds: MarkerKind['bounds'] = ({ position: [x, y, z] }) => ({
  min: [x - REACH_METRES, y, z - REACH_METRES],
  max: [x + REACH_METRES, y + HEIGHT_METRES, z + REACH_METRES],
});

/** Spawns are an open arrowhead that points where one looks, exits a ring round a dot, checkpoints a pennant, pickups a lozenge. */
function drawMarker({ context, colours, at: toScreen }: PlateDrawing, marker: Marker, env: MarksEnv): void {
  const at = toScreen(...marker.position);
  if (!at) return;
  context.strokeStyle = colours.kiln;
  context.fillStyle = colours.plate;
  context.lineWidth = 2;
  context.beginPath();
  if (marker.kind === 'spawn') arrowhead(context, at, marker.turn);
  else if (marker.kind === 'checkpoint') pennant(context, at);
  else if (marker.kind === 'pickup') lozenge(context, at);
  else context.arc(at[0], at[1], 8, 0, Math.PI * 2);
  context.fill();
  context.stroke();
  if (marker.kind === 'exit') {
    context.fillStyle = colours.kiln;
    context.beginPath();
    context.arc(at[0], at[1], 3, 0, Math.PI * 2);
    context.fill();
  }
  env.label({ id: marker.id, text: marker.kind, at: [at[0] + 13, at[1] + 4], size: MARK_SIZE, colour: colours.ink });
}

function pennant(context: CanvasRenderingContext2D, [x, y]: readonly [number, number]): void {
  context.moveTo(x - 4, y + 8);
  context.lineTo(x - 4, y - 8);
  context.lineTo(x + 8, y - 3);
  context.lineTo(x - 4, y + 2);
}

function lozenge(context: CanvasRenderingContext2D, [x, y]: readonly [number, number]): void {
  context.moveTo(x, y - 7);
  context.lineTo(x + 5, y);
  context.lineTo(x, y + 7);
  context.lineTo(x - 5, y);
  context.closePath();
}

function arrowhead(context: CanvasRenderingContext2D, [x, y]: readonly [number, number], turnDegrees: number): void {
  const angle = (-turnDegrees * Math.PI) / 180;
  const point = (forward: number, right: number): [number, number] => [
    x + Math.sin(angle) * forward + Math.cos(angle) * right,
    y - Math.cos(angle) * forward + Math.sin(angle) * right,
  ];
  context.moveTo(...point(11, 0));
  context.lineTo(...point(-7, 9));
  context.lineTo(...point(-7, -9));
  context.closePath();
}

export const MARKER_PLATE: MarkerKind = {
  rank: 4,
  bounds,
  boxes: boxesOfRecords(bounds),
  stands: (table, into) => {
    for (const { position } of table.values()) into(position);
  },
  marks: (table, drawing, env) => {
    for (const marker of table.values()) {
      if (!env.isSeen(marker.group)) continue;
      const y = marker.position[1];
      drawing.context.globalAlpha = env.alphaOf(y, y + 0.01);
      drawMarker(drawing, marker, env);
    }
  },
};
