import type { PlanPoint, Rehearsal } from '@stravel/core';
import type { PackWay } from '@stravel/walker';

/** Somebody steers instead of following a way. */
export const STEER = 'steer';

/** A way that can be chosen. */
export interface ChosenWay {
  readonly id: string;
  readonly name: string;
  readonly knots: readonly PlanPoint[];
  readonly floorMetres: number;
  /** Undefined where nobody said how fast. */
  readonly speedMetresPerSecond: number | undefined;
  /** Id of its device; undefined where any will do. */
  readonly device: string | undefined;
}

/** The rehearsals of a level first, then what the pack itself has, then the way that was steered. */
export function waysOf(
  rehearsals: readonly Rehearsal[],
  packed: readonly PackWay[],
  steered: PackWay | undefined,
): ChosenWay[] {
  const own = rehearsals.map((one): ChosenWay => ({ ...one, id: `rehearsal ${one.id}` }));
  const others = [...packed, ...(steered ? [steered] : [])].map((one, i): ChosenWay => ({
    ...one,
    id: `way ${i}`,
    speedMetresPerSecond: undefined,
    device: undefined,
  }));
  return [...own, ...others];
}
