import type { Vector3 } from '../model/vector';

const MICRO = 1e6;

/** Lengths and angles are kept to a millionth, so that sums of steps stay round. −0 becomes 0. */
export function toMicro(value: number): number {
  return Math.round(value * MICRO) / MICRO + 0;
}

export function vectorToMicro([x, y, z]: Vector3): Vector3 {
  return [toMicro(x), toMicro(y), toMicro(z)];
}

/** The same angle in (−180, 180], degrees to a millionth. */
export function wholeTurn(degrees: number): number {
  const turn = degrees - Math.floor(degrees / 360) * 360;
  return toMicro(turn > 180 ? turn - 360 : turn);
}
