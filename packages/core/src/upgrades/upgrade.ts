import type { Json } from '../model/json';
import type { EditableKind } from '../model/records';

/** A field with its value; an upgrade may name the field anew. */
export interface FieldValueOf {
  readonly field: string;
  readonly value: Json;
}

/**
 * One step of the model: how records of one kind, and single values of their fields, became what they are. Both maps are pure and say the
 * same: a record changed and then upgraded equals the record upgraded and then changed in the upgraded way, forward and back. So undo,
 * history and going back cross it. What needs two records is no upgrade but an edit in the log.
 */
export interface Upgrade {
  /** The version that it leads to; from one to the next without gaps. */
  readonly to: number;
  readonly why: string;
  readonly kind: EditableKind;
  /**
   * A word that stands, with its quotes, in the JSON of whatever this upgrade changes: text without it is passed on unread.
   */
  readonly mentions: string;
  /** Tells a whole record of the kind, as it was before, by its form: some local changes don't say what they are of. */
  readonly isOne: (record: { readonly [field: string]: Json }) => boolean;
  /** A whole record, new fields with their defaults. */
  readonly record?: (record: { readonly [field: string]: Json }) => { readonly [field: string]: Json };
  /** The value of one field, null where it has none; the same back where nothing changes. */
  readonly value?: (field: string, value: Json) => FieldValueOf;
}
