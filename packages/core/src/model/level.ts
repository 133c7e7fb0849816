import type { FieldValue } from './field';
import type { Box3 } from './vector';

export const PURPOSES = ['play', 'test', 'tool'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** One stratum in a level's stack. */
export interface StackEntry {
  readonly stratum: string;
  /** Not in test runs, still in the level. */
  readonly switchedOff: boolean;
}

/** One record: fields, a stack of strata, settings. */
export interface Level {
  readonly id: string;
  readonly name: string;
  /** Readable and unique in the collection; addresses and files use it, and it stays when the level is renamed. */
  readonly key: string;
  /** Id of the set it stands in. */
  readonly set: string;
  /** Sort key among its set's levels; see sets/order. */
  readonly order: string;
  readonly purpose: Purpose;
  /** What a player may type to open it; unique without regard to case. */
  readonly code: string;
  readonly values: Readonly<Record<string, FieldValue>>;
  /** Bottom first. */
  readonly strata: readonly StackEntry[];
  /** True when the level's bounds count as closed: sky above, nothing beyond. */
  readonly openSky: boolean;
  /** Metres; null takes the hull of the level's blocks. */
  readonly bounds: Box3 | null;
  /** Time at which it went to the bin, ISO 8601; null while in use. */
  readonly binned: string | null;
}
