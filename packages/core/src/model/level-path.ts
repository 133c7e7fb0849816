import type { Vector3 } from './vector';

export const PATH_FORMS = ['polyline', 'curve'] as const;
export type PathForm = (typeof PATH_FORMS)[number];

/** A point of a path. */
export interface Knot {
  /** Unique within the path, kept as long as the knot is. */
  readonly id: string;
  readonly position: Vector3;
  readonly widthMetres: number;
  readonly tags: readonly string[];
  /** Direction and pull of a curve at the knot, metres, before and behind it; null takes them from its neighbours. */
  readonly handle: Vector3 | null;
}

/** A route, a road, a rail, a camera line. Two knots in the same place make no path between them. */
export interface Path {
  readonly id: string;
  readonly name: string;
  readonly form: PathForm;
  readonly closed: boolean;
  readonly knots: readonly Knot[];
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
