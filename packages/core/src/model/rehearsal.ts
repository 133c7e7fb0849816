import type { PlanPoint } from './vector';

/** A walk to be simulated in a level that is cut into cells. */
export interface Rehearsal {
  readonly id: string;
  readonly level: string;
  readonly name: string;
  /** The path on the plan, metres. */
  readonly knots: readonly PlanPoint[];
  /** Height of the floor on which the walk starts, metres. */
  readonly floorMetres: number;
  readonly speedMetresPerSecond: number;
  /** Id of the device that is simulated. */
  readonly device: string;
}
