import type { Fields, Rule, Shape } from '../fields/field';
import type { PackedForm } from './packed-form';
import type { Item, ItemKind, ItemOfKind } from '../model/items';

/** What is known of all kinds, for what holds parts of others. */
export interface ItemShapes {
  of(kind: ItemKind): Pick<Shape<Item>, 'check' | 'fields'>;
  /** Kinds that a level may have otherwise. */
  readonly local: readonly ItemKind[];
  isOptional(kind: ItemKind, field: string): boolean;
}

/**
 * How items of a kind are validated. Strict: nothing unknown, nothing coerced. One in each room; `STORED` lists them.
 * Every field: one that is forgotten, mistyped or wrongly optional does not compile.
 */
export type StoredSpec<K extends ItemKind> = {
  /** How they stand in the file of a packed level: as a list, in a form of their own that the pack gives them, or not at all. */
  readonly packed: PackedForm<ItemOfKind[K]> | 'own form' | null;
} & (
  | {
      readonly fields: (all: ItemShapes) => Fields<ItemOfKind[K]>;
      /** Rules over several fields. */
      readonly rules?: (all: ItemShapes) => readonly Rule<ItemOfKind[K]>[];
    }
  | {
      /** Where items of one kind are of several sorts, each with fields of its own. */
      readonly shape: () => Shape<ItemOfKind[K]>;
    }
);
