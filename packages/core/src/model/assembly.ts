import type { Patch } from './patch';
import type { Vector3 } from './vector';

/** What one use of an assembly has otherwise, by the id of the thing within. */
export type UsePatch = Pick<Patch, 'kind' | 'change' | 'fields' | 'was'>;

/** One place where an assembly stands. The assembly itself is a stratum that belongs to a kit, in coordinates of its own. */
export interface AssemblyUse {
  readonly id: string;
  /** Id of the stratum that holds the assembly. */
  readonly assembly: string;
  readonly position: Vector3;
  /** Yaw in degrees; an assembly stands upright. */
  readonly turn: number;
  /** Absent: as the assembly is. */
  readonly patches?: Readonly<Record<string, UsePatch>> | null;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
