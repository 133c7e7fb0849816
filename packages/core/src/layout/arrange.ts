import { CoreError } from '../errors';
import type { Box3, Vector3 } from '../model/vector';
import { toMicro } from '../numeric/micro';
import { randomStream } from '../random/random-stream';

export const ALIGN_SIDES = ['low', 'middle', 'high'] as const;
export type AlignSide = (typeof ALIGN_SIDES)[number];
/** 0 is x, 1 is y, 2 is z. */
export type Axis = 0 | 1 | 2;

/** Most copies of one array. */
export const MAX_COPIES = 10000;

/** How far each thing moves so that one side of all lies where the outermost lies. @param boxes bounds, metres @returns metres along the axis */
export function alignSteps(boxes: readonly Box3[], axis: Axis, side: AlignSide): number[] {
  if (boxes.length === 0) return [];
  const place = ({ min, max }: Box3): number =>
    side === 'low' ? min[axis] : side === 'high' ? max[axis] : (min[axis] + max[axis]) / 2;
  const low = Math.min(...boxes.map(({ min }) => min[axis]));
  const high = Math.max(...boxes.map(({ max }) => max[axis]));
  const to = side === 'low' ? low : side === 'high' ? high : (low + high) / 2;
  return boxes.map((box) => toMicro(to - place(box)));
}

/** How far each thing moves so that the gaps between neighbours are equal; the outermost stay. @returns metres along the axis */
export function distributeSteps(boxes: readonly Box3[], axis: Axis): number[] {
  const order = boxes
    .map((_box, i) => i)
    .sort((a, b) => boxes[a].min[axis] + boxes[a].max[axis] - boxes[b].min[axis] - boxes[b].max[axis] || a - b);
  const steps = new Array<number>(boxes.length).fill(0);
  if (boxes.length < 3) return steps;
  const length = (i: number): number => boxes[i].max[axis] - boxes[i].min[axis];
  const [first, last] = [order[0], order[order.length - 1]];
  const room =
    boxes[last].min[axis] - boxes[first].max[axis] - order.slice(1, -1).reduce((sum, i) => sum + length(i), 0);
  const gap = room / (boxes.length - 1);
  let at = boxes[first].max[axis];
  for (const i of order.slice(1, -1)) {
    steps[i] = toMicro(at + gap - boxes[i].min[axis]);
    at += gap + length(i);
  }
  return steps;
}

/** Where copies of an array stand: by a step between neighbours, or by spreading them over a length. */
export type ArrayRequest =
  | { readonly by: 'step'; readonly copies: number; readonly step: Vector3 }
  | { readonly by: 'length'; readonly copies: number; readonly to: Vector3 }
  /** As many as fit at a spacing. */
  | { readonly by: 'spacing'; readonly spacingMetres: number; readonly to: Vector3 };

/**
 * How far each copy stands from the original, metres.
 * @throws CoreError 'ARRAY_SIZE' when it would be none, or more than 10,000
 */
export function arrayOffsets(request: ArrayRequest): Vector3[] {
  const length = request.by === 'spacing' ? Math.sqrt(request.to.reduce((sum, value) => sum + value * value, 0)) : 0;
  const copies = request.by === 'spacing' ? Math.floor(length / request.spacingMetres + 1e-9) : request.copies;
  if (!Number.isInteger(copies) || copies < 1 || copies > MAX_COPIES)
    throw new CoreError('ARRAY_SIZE', `array: it would make ${copies} copies, must be 1 to ${MAX_COPIES}`);
  const step: Vector3 =
    request.by === 'step'
      ? request.step
      : request.by === 'length'
        ? [request.to[0] / copies, request.to[1] / copies, request.to[2] / copies]
        : [
            (request.to[0] * request.spacingMetres) / length,
            (request.to[1] * request.spacingMetres) / length,
            (request.to[2] * request.spacingMetres) / length,
          ];
  return Array.from({ length: copies }, (_unused, i) => [
    toMicro(step[0] * (i + 1)),
    toMicro(step[1] * (i + 1)),
    toMicro(step[2] * (i + 1)),
  ]);
}

/** How far chance may go, each way. */
export interface VaryRequest {
  readonly turnDegrees: number;
  /** 0.2: from four fifths to six fifths. */
  readonly scaleShare: number;
  readonly offsetMetres: number;
}

/** What chance does to each of some things, in their order; the same seed gives the same. */
export function varied(
  count: number,
  { turnDegrees, scaleShare, offsetMetres }: VaryRequest,
  seed: string,
): { readonly turnDegrees: number; readonly scale: number; readonly offset: Vector3 }[] {
  const random = randomStream(`vary ${seed}`);
  return Array.from({ length: count }, () => {
    const [turn, scale, x, z] = [
      random.between(-1, 1),
      random.between(-1, 1),
      random.between(-1, 1),
      random.between(-1, 1),
    ];
    return {
      turnDegrees: toMicro(turn * turnDegrees),
      scale: toMicro(1 + scale * scaleShare),
      offset: [toMicro(x * offsetMetres), 0, toMicro(z * offsetMetres)],
    };
  });
}
