import type { RunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import type { Path } from '../../model/level-path';
import type { PlanPoint } from '../../model/vector';
import { distancesFromPath } from './path-figures';

export interface DistanceShadeInput {
  readonly path: Pick<Path, 'form' | 'closed' | 'knots'>;
  /** Least and greatest corner of what is shaded, metres. */
  readonly low: PlanPoint;
  readonly high: PlanPoint;
}

/** How far the places of a plan are from a path, seen from above, on a grid. */
export interface DistanceShade {
  readonly columns: number;
  readonly rows: number;
  readonly cellMetres: number;
  /** Least corner of the grid. */
  readonly origin: PlanPoint;
  /** Metres from the middle of each cell, row by row. */
  readonly metres: Float32Array;
  readonly mostMetres: number;
}

/** Most cells along a side. */
const MAX_SIDE = 128;

/** @throws CoreError 'SHADE_AREA' for corners that enclose nothing, 'CANCELLED' */
export function distanceShade({ path, low, high }: DistanceShadeInput, context: RunContext): DistanceShade {
  const [width, depth] = [high[0] - low[0], high[1] - low[1]];
  if (!(width > 0 && depth > 0 && width < Infinity && depth < Infinity))
    throw new CoreError('SHADE_AREA', `shade: from ${low.join(', ')} to ${high.join(', ')} m there is nothing`);
  const cellMetres = Math.max(width, depth) / MAX_SIDE;
  const [columns, rows] = [Math.max(1, Math.ceil(width / cellMetres)), Math.max(1, Math.ceil(depth / cellMetres))];
  const flat = {
    ...path,
    knots: path.knots.map((knot) => ({
      ...knot,
      position: [knot.position[0], 0, knot.position[2]] as const,
      handle: knot.handle && ([knot.handle[0], 0, knot.handle[2]] as const),
    })),
  };
  const metres = new Float32Array(columns * rows);
  let mostMetres = 0;
  for (let row = 0; row < rows; row++) {
    context.checkCancelled();
    context.progress(row / rows, 'distances');
    const z = low[1] + (row + 0.5) * cellMetres;
    const line = distancesFromPath(
      flat,
      Array.from({ length: columns }, (_unused, column) => [low[0] + (column + 0.5) * cellMetres, 0, z] as const),
    );
    metres.set(line, row * columns);
    for (const distance of line) if (distance > mostMetres) mostMetres = distance;
  }
  return { columns, rows, cellMetres, origin: low, metres, mostMetres };
}
