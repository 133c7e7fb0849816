import type { SolvedTiles, TileFloor, TilePlace } from '@stravel/core';
import type { PlateDrawing } from '../../../../plate/plate-drawing';

/** Draws the way over tile floors up to a step, and faintly crosses the squares that are never needed. */
export function drawWay(
  { context, colours, at, scale }: PlateDrawing,
  { way, neverNeeded, floors }: SolvedTiles & { readonly floors: readonly TileFloor[] },
  step: number,
): void {
  const byId = new Map(floors.map((floor) => [floor.id, floor]));
  const middle = ({ floor: id, column, row }: TilePlace): [number, number] | undefined => {
    const floor = byId.get(id);
    return (
      floor &&
      at(
        floor.position[0] + (column + 0.5) * floor.squareMetres,
        floor.position[1],
        floor.position[2] + (row + 0.5) * floor.squareMetres,
      )
    );
  };
  context.strokeStyle = colours.softInk;
  context.lineWidth = 1;
  context.beginPath();
  const reach = Math.min(5, (scale ?? 10) * 0.2);
  for (const place of neverNeeded) {
    const p = middle(place);
    if (!p) continue;
    context.moveTo(p[0] - reach, p[1] - reach);
    context.lineTo(p[0] + reach, p[1] + reach);
  }
  context.stroke();
  context.strokeStyle = colours.brine;
  context.fillStyle = colours.brine;
  context.lineWidth = 3;
  context.beginPath();
  way.slice(0, step).forEach((place, i) => {
    const p = middle(place);
    if (!p) return;
    if (i === 0) context.moveTo(...p);
    else context.lineTo(...p);
  });
  context.stroke();
  const last = way[step - 1];
  const p = last && middle(last);
  if (!p) return;
  context.beginPath();
  context.arc(p[0], p[1], 6, 0, Math.PI * 2);
  context.fill();
}
