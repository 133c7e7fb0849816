import type { FieldValue } from './field';
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
  /** Id of an entry of a register of kinds of marker; absent: none. */
  readonly entry?: string | null;
  /** Its own values of its entry's fields; absent fields are as the entry has them. */
  readonly values?: Readonly<Record<string, FieldValue>> | null;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
