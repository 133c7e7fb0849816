import { pathPoints, type Box3, type Path } from '@stravel/core';
import { drawArrow } from '../arrow-mark';
import { boxAround } from '../box-around';
import type { PlateDrawing } from '../plate-drawing';
import { isNearLine } from './plan-outline';
import { boxesOfRecords, type MarksEnv, type PlateKind } from './plate-kind';

/** How wide a line is, pixels. */
const LINE_PIXELS = 2.5;

const lines = new WeakMap<Path, Float64Array>();

/** Points of a path record's line, made once; xyz triples. */
function lineOfPath(path: Path): Float64Array {
  let line = lines.get(path);
  if (!line) lines.set(path, (line = pathPoints(path)));
  return line;
}

function boundsOfPath(path: Path): Box3 {
  const line = lineOfPath(path);
  const points = Array.from({ length: line.length / 3 }, (_unused, i): Box3['min'] => [
    line[i * 3],
    line[i * 3 + 1],
    line[i * 3 + 2],
  ]);
  return boxAround(points.map((point) => ({ min: point, max: point }))) ?? { min: points[0], max: points[0] };
}

/** Its line, with its knots and an arrow along its way on the plan. */
function drawPath({ at, context, colours, view, scale }: PlateDrawing, path: Path, env: MarksEnv): void {
  const line = lineOfPath(path);
  context.strokeStyle = colours.path;
  context.fillStyle = colours.plate;
  context.lineWidth = view === 'plan' ? 2.5 : 1.5;
  context.beginPath();
  for (let i = 0; i < line.length; i += 3) {
    const p = at(line[i], line[i + 1], line[i + 2]);
    if (!p) continue;
    if (i === 0) context.moveTo(...p);
    else context.lineTo(...p);
  }
  context.stroke();
  if (view !== 'plan') return;
  context.lineWidth = 1.5;
  for (const { position } of path.knots) {
    const p = at(...position);
    if (!p) continue;
    context.beginPath();
    context.rect(p[0] - 3.5, p[1] - 3.5, 7, 7);
    context.fill();
    context.stroke();
  }
  const middle = Math.floor(line.length / 6) * 3;
  if (middle >= 3)
    drawArrow(
      context,
      at(line[middle - 3], line[middle - 2], line[middle - 1]),
      at(line[middle], line[middle + 1], line[middle + 2]),
      colours.path,
    );
  const first = at(...path.knots[0].position);
  if (!first || !path.name) return;
  const { min, max } = boundsOfPath(path);
  const size = (max[0] - min[0] + max[2] - min[2]) * scale * LINE_PIXELS;
  env.label({ id: path.id, text: path.name, at: [first[0] + 8, first[1] + 12], size, colour: colours.path });
}

export const PATH_PLATE: PlateKind<'path'> = {
  rank: 3,
  bounds: boundsOfPath,
  boxes: boxesOfRecords(boundsOfPath),
  isOver: (path, spot) => isNearLine({ ...spot, reach: spot.reach * 2 }, lineOfPath(path)),
  outline: (path) => {
    const line = lineOfPath(path);
    return Array.from({ length: line.length / 3 - 1 }, (_unused, i) => line.subarray(i * 3, i * 3 + 6));
  },
  marks: (table, drawing, env) => {
    for (const path of table.values()) {
      if (!env.isSeen(path.group)) continue;
      const heights = path.knots.map(({ position }) => position[1]);
      drawing.context.globalAlpha = env.alphaOf(Math.min(...heights), Math.max(...heights));
      drawPath(drawing, path, env);
    }
  },
};
