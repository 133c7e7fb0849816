import type { Vector3 } from './vector';

export const MARKER_KINDS = ['spawn', 'exit', 'checkpoint', 'pickup'] as const;
export type MarkerKind = (typeof MARKER_KINDS)[number];

/** A point with a direction. */
export interface Marker {
  readonly id: string;
  readonly kind: MarkerKind;
  readonly position: Vector3;
  /** Yaw in degrees; 0 looks along −Z. */
  readonly turn: number;
}
