/** A number that goes along from level to level: a score. */
export interface CarriedValue {
  readonly id: string;
  readonly name: string;
  /** What one begins with, and what a reset brings back. */
  readonly start: number;
  /** Whether a level gives it once, or again each time it is played. */
  readonly counts: 'once' | 'each time';
  readonly order: string;
}

export const CARRIED_COUNTS = ['once', 'each time'] as const;

/** When a level opens. A level with several rules opens by whichever holds first, and stays open. */
export type UnlockRule =
  | { readonly kind: 'start' }
  | { readonly kind: 'code' }
  /** Once all, or any, of these levels were played. */
  | { readonly kind: 'after'; readonly levels: readonly string[]; readonly need: 'all' | 'any' }
  /** Once a carried value has come up to a threshold. */
  | { readonly kind: 'value'; readonly value: string; readonly least: number };

export const UNLOCK_NEEDS = ['all', 'any'] as const;

/** What playing a level adds to a carried value, between least and most. */
export interface Gain {
  /** Id of the carried value. */
  readonly value: string;
  readonly least: number;
  readonly most: number;
  /** Key of a number field that says the most instead; absent or null: `most`. */
  readonly field?: string | null;
}

/** How a level opens and what it does to the carried values. */
export interface LevelOrder {
  /** Id of the level. */
  readonly id: string;
  readonly rules: readonly UnlockRule[];
  readonly gains: readonly Gain[];
  /** Ids of carried values that entering the level sets back to their start. */
  readonly resets: readonly string[];
}
