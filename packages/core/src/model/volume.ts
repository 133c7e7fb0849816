import type { FieldValue } from './field';
import type { PlanPoint, TurnDegrees, Vector3 } from './vector';

/** Metres, in the volume's own frame. Boxes and prisms stand on its origin, a sphere is about it. */
export type VolumeShape =
  | { readonly form: 'box'; readonly size: Vector3 }
  | { readonly form: 'sphere'; readonly radiusMetres: number }
  /** Over a convex outline in cyclic order. */
  | { readonly form: 'prism'; readonly outline: readonly PlanPoint[]; readonly heightMetres: number };

export const VOLUME_FORMS = ['box', 'sphere', 'prism'] as const satisfies readonly VolumeShape['form'][];

/** An invisible body that emits events. */
export interface Volume {
  readonly id: string;
  readonly name: string;
  /** Id of an entry of a register of kinds of volume; '' when none is chosen yet. */
  readonly kind: string;
  readonly position: Vector3;
  readonly turn: TurnDegrees;
  readonly shape: VolumeShape;
  /** Its own values of its kind's fields; absent fields are as the entry has them. */
  readonly values?: Readonly<Record<string, FieldValue>> | null;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
