import type { TurnDegrees, Vector3 } from './vector';

/** One use of a piece. */
export interface Placement {
  readonly id: string;
  readonly piece: string;
  readonly position: Vector3;
  readonly turn: TurnDegrees;
  readonly scale: Vector3;
}
