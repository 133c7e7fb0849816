import type { AnyObjectSchema, Schema } from 'yup';
import type { ItemKind, ItemOfKind } from '../model/items';

/** What is known of all kinds, for what holds parts of others. */
export interface ItemSchemas {
  of(kind: ItemKind): AnyObjectSchema;
  /** Kinds that a level may have otherwise. */
  readonly local: readonly ItemKind[];
  isOptional(kind: ItemKind, field: string): boolean;
}

/** How items of a kind are validated. Strict: nothing unknown, nothing coerced. One in each room; `STORED` lists them. */
export interface StoredSpec<K extends ItemKind> {
  /** Every field: one that is forgotten or mistyped does not compile. */
  readonly fields: (all: ItemSchemas) => { readonly [F in keyof ItemOfKind[K]]-?: Schema };
  /** Rules over several fields. */
  readonly rules?: (schema: AnyObjectSchema, all: ItemSchemas) => AnyObjectSchema;
}
