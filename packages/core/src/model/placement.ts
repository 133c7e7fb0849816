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

/** What a placement may have besides its transform. */
export type PlacementMore = Pick<Placement, 'group' | 'values'>;

/** Placements in columns: what computes goes over these. */
export interface PlacementColumns {
  readonly count: number;
  readonly ids: readonly string[];
  /** Id of each placement's piece. */
  readonly pieces: readonly string[];
  /** Nine numbers a placement: position xyz in metres, yaw pitch roll in degrees, scale xyz. */
  readonly numbers: Float64Array;
  /** What few placements have besides: group and own values, by index. */
  readonly more: ReadonlyMap<number, PlacementMore>;
}
