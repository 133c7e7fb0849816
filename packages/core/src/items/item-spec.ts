import type { ItemKind, ItemOfKind } from '../model/items';
import type { EachId } from './ids';
import type { Place } from './place';

/** Looks up the names of what items point at. */
export interface Names {
  piece(id: string): string;
}

/** What can be done with all items of a kind. */
export interface ItemTraits {
  /** A level may have one otherwise than the others that share its stratum. */
  readonly local: boolean;
  /** Assemblies may hold it: grids keep to the axes and recipes belong to a stratum, so that neither can be turned with a use. */
  readonly assembled: boolean;
  /** Links may begin and end at it. */
  readonly linked: boolean;
  /** It is a thing on the plan: selected, copied and pasted. */
  readonly selected: boolean;
  /** A copy of a stratum has it too. */
  readonly copied: boolean;
  /** It counts as a thing of its stratum; what gathers others or changes them does not. */
  readonly thing: boolean;
  /** It points at pieces, itself or in what it holds of others. */
  readonly pieces: boolean;
  /** People give it a name. */
  readonly named: boolean;
  /** A stratum may hold very many: lists have them after all others. */
  readonly many: boolean;
}

type OptionalKeys<T> = { [F in keyof T]-?: undefined extends T[F] ? F : never }[keyof T];

/** One thing that is wrong with an item. */
export interface ItemFault {
  /** The field that it is about. */
  readonly path: string;
  readonly message: string;
}

/** What the core knows of a kind of item without its schema. One in each room; `ITEMS` lists them. */
export interface ItemSpec<K extends ItemKind> {
  readonly words: { readonly one: string; readonly many: string };
  readonly traits: ItemTraits;
  /** Fields that an item may lack; an edit that takes one away leaves no trace of it. */
  readonly optional: { readonly [F in OptionalKeys<ItemOfKind[K]>]: true };
  /** Null where it has no place of its own. */
  readonly place: Place<ItemOfKind[K]> | null;
  /** What is wrong with one whose fields are each as they should be, undefined when it is sound. */
  readonly fault?: (item: ItemOfKind[K]) => ItemFault | undefined;
  /** It says what is otherwise with another item, and is laid over that. */
  readonly isLaidOver?: true;
  /** Can be entered and left. */
  readonly isEntered?: true;
  /** Name that it goes by, '' where it has none. */
  readonly name: (item: ItemOfKind[K], names: Names) => string;
  /** Words that people gave to parts of it, to be found by. */
  readonly tags?: (item: ItemOfKind[K]) => readonly string[];
  /** Group of its stratum that it is in, null at the top. */
  readonly group: (item: ItemOfKind[K]) => string | null;
  /** Material that its surface has and is counted under, where it has one of its own. */
  readonly material?: (item: ItemOfKind[K]) => string;
  /** Most in a level that a new target takes; absent: any number. */
  readonly targetMax?: number;
  /** Whether two are alike: what *Select similar* takes. */
  readonly alike: (a: ItemOfKind[K], b: ItemOfKind[K]) => boolean;
  /**
   * Goes over all ids that an item, or some fields of one, point at.
   * @returns the fields with the ids that `each` gave, the same where all are as they were
   */
  readonly ids: (fields: Partial<ItemOfKind[K]>, each: EachId, all: ItemSpecs) => Partial<ItemOfKind[K]>;
}

export type ItemSpecs = { readonly [K in ItemKind]: ItemSpec<K> };

/** An item with its kind: some records have a `kind` of their own, so that a pair it must be. */
export type AnyItem<K extends ItemKind = ItemKind> = {
  readonly [P in K]: { readonly kind: P; readonly item: ItemOfKind[P] };
}[K];
