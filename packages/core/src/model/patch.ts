import type { Json } from './json';
import type { ItemKind } from './stratum';

export const PATCH_CHANGES = ['changed', 'hidden', 'added'] as const;
export type PatchChange = (typeof PATCH_CHANGES)[number];

/** The kinds of item that a level may have otherwise than the stratum it shares. */
export type PatchedKind = Exclude<ItemKind, 'patch' | 'pin' | 'recipe'>;

/** What one level changes in a shared stratum for itself alone. It stands in the shared stratum, beside what it changes. */
export interface Patch {
  /** Told by `patchId`, so that a level has one patch for a thing. */
  readonly id: string;
  readonly level: string;
  readonly kind: PatchedKind;
  /** The shared item; of an added one, its own id. */
  readonly target: string;
  readonly change: PatchChange;
  /** Changed: fields with the level's values. Added: the whole item. Hidden: nothing. */
  readonly fields: Readonly<Record<string, Json>>;
  /** The shared values of those fields when they were changed, so that a later change of the shared ones can be told. */
  readonly was: Readonly<Record<string, Json>>;
}

/** Id of the patch of an item in a level. */
export function patchId(level: string, target: string): string {
  return `${target}..${level}`;
}
