import type { Block } from './block';
import type { Divider } from './divider';
import type { Marker } from './marker';
import type { Pin } from './pin';
import type { Placement } from './placement';
import type { Recipe } from './recipe';

export const STRATUM_ROLES = ['base', 'structure', 'section', 'dressing', 'events', 'light'] as const;
export type StratumRole = (typeof STRATUM_ROLES)[number];

/** A slice of content: what is known of it without opening it. */
export interface Stratum {
  readonly id: string;
  readonly name: string;
  readonly role: StratumRole;
  /** Id of the level that owns it, null when it is shared. */
  readonly owner: string | null;
}

/** The kinds of item that a stratum holds. */
export const ITEM_KINDS = ['block', 'placement', 'marker', 'divider', 'recipe', 'pin'] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];

export interface ItemOfKind {
  readonly block: Block;
  readonly placement: Placement;
  readonly marker: Marker;
  readonly divider: Divider;
  readonly recipe: Recipe;
  readonly pin: Pin;
}
export type Item = ItemOfKind[ItemKind];

/** Everything in one stratum; items in order of id. */
export interface StratumContent {
  readonly block: readonly Block[];
  readonly placement: readonly Placement[];
  readonly marker: readonly Marker[];
  readonly divider: readonly Divider[];
  readonly recipe: readonly Recipe[];
  readonly pin: readonly Pin[];
}

export const EMPTY_CONTENT: StratumContent = { block: [], placement: [], marker: [], divider: [], recipe: [], pin: [] };
