import type { FieldValue } from './field';
import type { TurnDegrees, Vector3 } from './vector';

/** One use of a piece. */
export interface Placement {
  readonly id: string;
  readonly piece: string;
  readonly position: Vector3;
  readonly turn: TurnDegrees;
  readonly scale: Vector3;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
  /** Its own values, by key. */
  readonly values?: Readonly<Record<string, FieldValue>> | null;
}
