import type { RunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import type { Mask } from '../../model/mask';
import type { PlanPoint } from '../../model/vector';
import { bitmapOfMask, type MaskBitmap } from './mask-bitmap';
import { maskClearance } from './mask-clearance';
import { maskNarrows } from './mask-narrows';
import { labelRegions } from './mask-regions';
import { maskReach } from './mask-way';

export interface SurveyMaskInput {
  readonly mask: Mask;
  /** Where the body starts, metres; null leaves ways out. */
  readonly from: PlanPoint | null;
  /** Where it is to get. */
  readonly to: readonly PlanPoint[];
  /** Diameter of the body, metres, above 0. */
  readonly bodyMetres: number;
  /** Passages narrower than this are told, metres, above 0. */
  readonly narrowMetres: number;
}

export interface MaskRegion {
  readonly squareMetres: number;
  readonly low: PlanPoint;
  readonly high: PlanPoint;
  /** Whether the body starts in it. */
  readonly hasStart: boolean;
}

export interface MaskWay {
  /** '' when there is a way; else why there is none. */
  readonly fault: string;
  readonly points: readonly PlanPoint[];
  readonly lengthMetres: number;
}

/** What a mask holds for a body. */
export interface MaskSurvey {
  readonly openSquareMetres: number;
  /** Largest first, at most 200. */
  readonly regions: readonly MaskRegion[];
  readonly regionCount: number;
  /** One for each goal, in the order asked. */
  readonly ways: readonly MaskWay[];
  /** Narrowest first, at most 200. */
  readonly narrows: readonly { readonly at: PlanPoint; readonly widthMetres: number }[];
  readonly narrowCount: number;
  /** Where the body comes: 0 solid or too narrow, 1 open but not reached, 2 reached. `step` pixels of the mask make one. */
  readonly shade: {
    readonly columns: number;
    readonly rows: number;
    readonly step: number;
    readonly cells: Uint8Array;
  };
  /** Whether the body has a place to start from; without one nothing is reached. */
  readonly hasStart: boolean;
  /** Open ground, square metres, on which the body can stand but to which it does not come. */
  readonly unreachedSquareMetres: number;
}

const MAX_TOLD = 200;
const MAX_SHADE_SIDE = 1024;

/**
 * Surveys a mask for a body: its regions, the ways from start to goals, its narrow places. Beyond the mask all is solid. The middle of the
 * body keeps to the middles of pixels, so that a passage may be refused that is wider than the body by less than a pixel, never the other way.
 * @throws CoreError 'MASK_TILE', 'MASK_BODY' for a width that is not above 0, 'CANCELLED'
 */
export function surveyMask(
  { mask, from, to, bodyMetres, narrowMetres }: SurveyMaskInput,
  context: RunContext,
): MaskSurvey {
  if (!(bodyMetres > 0 && narrowMetres > 0))
    throw new CoreError(
      'MASK_BODY',
      `mask: a player width of ${bodyMetres} m and passages of ${narrowMetres} m must be above 0`,
    );
  const bitmap = bitmapOfMask(mask);
  const { open } = bitmap;
  const scale = mask.pixelsPerMetre;
  const metres = (column: number, row: number): PlanPoint => [
    mask.position[0] + column / scale,
    mask.position[2] + row / scale,
  ];
  const clearance = maskClearance(bitmap, { isWalled: true }, context);
  const body = bodyMetres * scale;
  const fits = new Uint8Array(open.length);
  for (let i = 0; i < open.length; i++) fits[i] = clearance[i] >= body * body ? 1 : 0;
  const start = from && pixelFor(mask, bitmap, fits, from, body);
  const reach = typeof start === 'number' ? maskReach(bitmap, fits, start, context) : undefined;
  const ways = (from ? to : []).map((goal): MaskWay => {
    if (typeof start === 'string') return noWay(`The player does not fit at the start: ${start}.`);
    const end = pixelFor(mask, bitmap, fits, goal, body);
    if (typeof end === 'string') return noWay(`The player does not fit at the goal: ${end}.`);
    if (!reach || reach.costs[end] < 0) return noWay('No route is wide enough for the player.');
    const pixels = reach.wayTo(end);
    const points = Array.from({ length: pixels.length / 2 }, (_unused, i) =>
      metres(pixels[i * 2] + 0.5, pixels[i * 2 + 1] + 0.5),
    );
    return { fault: '', points, lengthMetres: lengthOf(points) };
  });
  context.progress(0.6, 'regions');
  const { labels, sizes, bounds } = labelRegions(bitmap, 1, context);
  const startRegion = from ? labelAt(mask, bitmap, labels, from) : 0;
  const area = 1 / (scale * scale);
  const regions = Array.from(sizes.subarray(1), (size, k): MaskRegion => {
    const [x0, z0, x1, z1] = bounds.subarray((k + 1) * 4, (k + 1) * 4 + 4);
    return {
      squareMetres: size * area,
      low: metres(x0, z0),
      high: metres(x1 + 1, z1 + 1),
      hasStart: k + 1 === startRegion,
    };
  }).sort((a, b) => b.squareMetres - a.squareMetres);
  context.progress(0.7, 'narrow places');
  const narrows = maskNarrows(bitmap, clearance, narrowMetres * scale, context).map(({ column, row, widthPixels }) => ({
    at: metres(column + 0.5, row + 0.5),
    widthMetres: widthPixels / scale,
  }));
  let unreached = 0;
  if (reach) for (let i = 0; i < fits.length; i++) if (fits[i] === 1 && reach.costs[i] < 0) unreached++;
  return {
    openSquareMetres: sizes.reduce((sum, size) => sum + size, 0) * area,
    regions: regions.slice(0, MAX_TOLD),
    regionCount: regions.length,
    ways,
    narrows: narrows.slice(0, MAX_TOLD),
    narrowCount: narrows.length,
    shade: shadeOf(bitmap, fits, reach?.costs),
    hasStart: reach !== undefined,
    unreachedSquareMetres: unreached * area,
  };
}

/** The nearest pixel, no farther than the body is wide, on which the body can stand; else why there is none. */
function pixelFor(
  mask: Mask,
  { columns, rows }: MaskBitmap,
  fits: Uint8Array,
  [x, z]: PlanPoint,
  body: number,
): number | string {
  const [px, pz] = [(x - mask.position[0]) * mask.pixelsPerMetre, (z - mask.position[2]) * mask.pixelsPerMetre];
  if (px < 0 || pz < 0 || px >= columns || pz >= rows) return 'it is outside the mask';
  const reach = Math.ceil(body);
  let found = -1;
  let least = Infinity;
  for (let row = Math.max(0, Math.floor(pz) - reach); row <= Math.min(rows - 1, Math.floor(pz) + reach); row++) {
    for (
      let column = Math.max(0, Math.floor(px) - reach);
      column <= Math.min(columns - 1, Math.floor(px) + reach);
      column++
    ) {
      const [dx, dz] = [column + 0.5 - px, row + 0.5 - pz];
      const square = dx * dx + dz * dz;
      if (fits[row * columns + column] === 0 || square >= least || square > (body + 1) * (body + 1)) continue;
      [found, least] = [row * columns + column, square];
    }
  }
  return found >= 0 ? found : 'it is solid or too narrow there';
}

function labelAt(mask: Mask, { columns, rows }: MaskBitmap, labels: Int32Array, [x, z]: PlanPoint): number {
  const [column, row] = [
    Math.floor((x - mask.position[0]) * mask.pixelsPerMetre),
    Math.floor((z - mask.position[2]) * mask.pixelsPerMetre),
  ];
  return column >= 0 && row >= 0 && column < columns && row < rows ? labels[row * columns + column] : 0;
}

function noWay(fault: string): MaskWay {
  return { fault, points: [], lengthMetres: 0 };
}

function lengthOf(points: readonly PlanPoint[]): number {
  let length = 0;
  for (let i = 1; i < points.length; i++) {
    const [dx, dz] = [points[i][0] - points[i - 1][0], points[i][1] - points[i - 1][1]];
    length += Math.sqrt(dx * dx + dz * dz);
  }
  return length;
}

/** The most of what the pixels of a cell are. */
function shadeOf({ columns, rows }: MaskBitmap, fits: Uint8Array, costs: Int32Array | undefined): MaskSurvey['shade'] {
  const step = Math.max(1, Math.ceil(Math.max(columns, rows) / MAX_SHADE_SIDE));
  const [across, down] = [Math.ceil(columns / step), Math.ceil(rows / step)];
  const cells = new Uint8Array(across * down);
  for (let row = 0, i = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++, i++) {
      const cell = Math.floor(row / step) * across + Math.floor(column / step);
      const value = fits[i] === 0 ? 0 : costs && costs[i] >= 0 ? 2 : 1;
      if (value > cells[cell]) cells[cell] = value;
    }
  }
  return { columns: across, rows: down, step, cells };
}
