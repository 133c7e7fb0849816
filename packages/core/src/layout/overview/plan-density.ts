import type { RunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import type { PlanPoint } from '../../model/vector';

export interface DensityInput {
  /** x and z of each thing, metres, finite. */
  readonly points: Float64Array;
  /** How far a thing is felt, metres, above 0. */
  readonly reachMetres: number;
}

/** A part of the plan that stands out. */
export interface DensityRegion {
  readonly kind: 'crowded' | 'empty';
  readonly squareMetres: number;
  /** Mean over the region, things a hundred square metres. */
  readonly density: number;
  /** Least and greatest corner, metres. */
  readonly low: PlanPoint;
  readonly high: PlanPoint;
}

/** How densely things stand, on a grid over all of them and `reachMetres` beyond. */
export interface PlanDensity {
  readonly columns: number;
  readonly rows: number;
  readonly cellMetres: number;
  /** Least corner of the grid. */
  readonly origin: PlanPoint;
  /** Things a hundred square metres, row by row. */
  readonly cells: Float32Array;
  /** Mean between the outermost things. */
  readonly mean: number;
  /** Largest first; crowded before empty. */
  readonly regions: readonly DensityRegion[];
}

/** Most cells along a side of the grid. */
const MAX_SIDE = 256;
/** Crowded is more than so many times the mean, empty less than this share of it. */
const CROWDED_TIMES = 2.5;
const EMPTY_SHARE = 0.1;
const MAX_REGIONS = 20;
/** Points between two looks at the cancel flag. */
const CHECK_POINTS = 4096;

/**
 * Kernel density of things on the plan, with the regions that are crowded or empty.
 * @throws CoreError 'DENSITY_INPUT' for a reach that is not above 0 or points that are not pairs; 'CANCELLED'
 * Source: the quartic kernel as in B. Silverman, Density Estimation for Statistics and Data Analysis, 1986, section 4.2.
 * Cost: points times the cells within reach of one.
 */
export function planDensity({ points, reachMetres }: DensityInput, context: RunContext): PlanDensity {
  if (!(reachMetres > 0) || points.length % 2 !== 0 || points.some((value) => !Number.isFinite(value))) {
    throw new CoreError(
      'DENSITY_INPUT',
      `density: needs finite pairs of x and z and a reach above 0, has ${points.length} numbers and ${reachMetres} m`,
    );
  }
  const bounds = boundsOf(points);
  const extent = Math.max(bounds.high[0] - bounds.low[0], bounds.high[1] - bounds.low[1]) + 2 * reachMetres;
  const cellMetres = Math.max(extent / MAX_SIDE, reachMetres / 8);
  const origin: PlanPoint = [bounds.low[0] - reachMetres, bounds.low[1] - reachMetres];
  const size = (k: 0 | 1): number =>
    Math.max(1, Math.ceil((bounds.high[k] - bounds.low[k] + 2 * reachMetres) / cellMetres));
  const [columns, rows] = [size(0), size(1)];
  const cells = new Float32Array(columns * rows);
  // 3 ÷ (π h²) a thing and square metre; times a hundred.
  const scale = 300 / (Math.PI * reachMetres * reachMetres);
  for (let i = 0; i < points.length; i += 2) {
    if (i % (2 * CHECK_POINTS) === 0) {
      context.checkCancelled();
      context.progress(i / points.length, 'spreading');
    }
    const [x, z] = [points[i] - origin[0], points[i + 1] - origin[1]];
    const last = Math.min(rows - 1, Math.floor((z + reachMetres) / cellMetres));
    for (let row = Math.max(0, Math.floor((z - reachMetres) / cellMetres)); row <= last; row++) {
      const dz = (row + 0.5) * cellMetres - z;
      const end = Math.min(columns - 1, Math.floor((x + reachMetres) / cellMetres));
      for (let column = Math.max(0, Math.floor((x - reachMetres) / cellMetres)); column <= end; column++) {
        const dx = (column + 0.5) * cellMetres - x;
        const left = 1 - (dx * dx + dz * dz) / (reachMetres * reachMetres);
        if (left > 0) cells[row * columns + column] += scale * left * left;
      }
    }
  }
  const grid = { columns, rows, cellMetres, origin, cells };
  const inner = innerCells(grid, reachMetres);
  const mean = inner.reduce((sum, cell) => sum + cells[cell], 0) / Math.max(1, inner.length);
  const isInner = new Uint8Array(cells.length);
  for (const cell of inner) isInner[cell] = 1;
  const regions = [
    ...regionsOf(grid, 'crowded', reachMetres, (cell) => cells[cell] > CROWDED_TIMES * mean),
    // Beyond the outermost things nothing is missing.
    ...regionsOf(grid, 'empty', reachMetres, (cell) => isInner[cell] === 1 && cells[cell] < EMPTY_SHARE * mean),
  ];
  return { ...grid, mean, regions: points.length === 0 ? [] : regions };
}

type Grid = Pick<PlanDensity, 'columns' | 'rows' | 'cellMetres' | 'origin' | 'cells'>;

function boundsOf(points: Float64Array): { readonly low: PlanPoint; readonly high: PlanPoint } {
  if (points.length === 0) return { low: [0, 0], high: [0, 0] };
  const low: [number, number] = [Infinity, Infinity];
  const high: [number, number] = [-Infinity, -Infinity];
  points.forEach((value, i) => {
    low[i % 2] = Math.min(low[i % 2], value);
    high[i % 2] = Math.max(high[i % 2], value);
  });
  return { low, high };
}

/** Cells between the outermost things. */
function innerCells({ columns, rows, cellMetres }: Grid, reachMetres: number): number[] {
  const margin = Math.floor(reachMetres / cellMetres);
  // Where all stands in one place or line there is nothing between: then all counts.
  if (rows <= 2 * margin || columns <= 2 * margin)
    return Array.from({ length: rows * columns }, (_unused, cell) => cell);
  const inner: number[] = [];
  for (let row = margin; row < rows - margin; row++)
    for (let column = margin; column < columns - margin; column++) inner.push(row * columns + column);
  return inner;
}

/** Areas of cells that hang together side by side, without those smaller than a thing's reach. */
function regionsOf(
  { columns, rows, cellMetres, origin, cells }: Grid,
  kind: DensityRegion['kind'],
  reachMetres: number,
  holds: (cell: number) => boolean,
): DensityRegion[] {
  const seen = new Uint8Array(cells.length);
  const regions: DensityRegion[] = [];
  for (let start = 0; start < cells.length; start++) {
    if (seen[start] || !holds(start)) continue;
    const waiting = [start];
    seen[start] = 1;
    let [count, sum, left, right, top, bottom] = [0, 0, columns, -1, rows, -1];
    for (let cell = waiting.pop(); cell !== undefined; cell = waiting.pop()) {
      const [column, row] = [cell % columns, Math.floor(cell / columns)];
      count++;
      sum += cells[cell];
      [left, right, top, bottom] = [
        Math.min(left, column),
        Math.max(right, column),
        Math.min(top, row),
        Math.max(bottom, row),
      ];
      for (const [dx, dz] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ]) {
        const [c, r] = [column + dx, row + dz];
        const next = r * columns + c;
        if (c < 0 || r < 0 || c >= columns || r >= rows || seen[next] || !holds(next)) continue;
        seen[next] = 1;
        waiting.push(next);
      }
    }
    const squareMetres = count * cellMetres * cellMetres;
    if (squareMetres < reachMetres * reachMetres) continue;
    const at = (column: number, row: number): PlanPoint => [
      origin[0] + column * cellMetres,
      origin[1] + row * cellMetres,
    ];
    regions.push({ kind, squareMetres, density: sum / count, low: at(left, top), high: at(right + 1, bottom + 1) });
  }
  return regions.sort((a, b) => b.squareMetres - a.squareMetres).slice(0, MAX_REGIONS);
}
