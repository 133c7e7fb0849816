import { toMicro, type PlanPoint } from '@stravel/core';

/** Less than this is not meant, metres. */
export const MIN_METRES = 0.01;
export const UNTURNED = [0, 0, 0] as const;

/** Middle and size of a rectangle of the plan, metres; undefined when it is too small to be meant. */
export function areaBetween(
  [x0, z0]: PlanPoint,
  [x1, z1]: PlanPoint,
): { readonly middle: PlanPoint; readonly size: PlanPoint } | undefined {
  const size: PlanPoint = [toMicro(Math.abs(x1 - x0)), toMicro(Math.abs(z1 - z0))];
  return size[0] < MIN_METRES || size[1] < MIN_METRES
    ? undefined
    : { middle: [toMicro((x0 + x1) / 2), toMicro((z0 + z1) / 2)], size };
}

/** Middle of an outline, and the outline about it. @param points at least one */
export function aboutMiddle(points: readonly PlanPoint[]): {
  readonly middle: PlanPoint;
  readonly outline: PlanPoint[];
} {
  const mean = (k: 0 | 1): number => toMicro(points.reduce((sum, point) => sum + point[k], 0) / points.length);
  const middle: PlanPoint = [mean(0), mean(1)];
  return { middle, outline: points.map(([x, z]): PlanPoint => [toMicro(x - middle[0]), toMicro(z - middle[1])]) };
}
