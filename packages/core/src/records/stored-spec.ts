import type { Fields, Rule } from '../fields/field';
import type { RecordKind, RecordOfKind } from '../model/records';

/** How records of a kind are validated. Strict: nothing unknown, nothing coerced. One in each room; `STORED` lists them. */
export interface StoredRecordSpec<K extends RecordKind> {
  /** Every field: one that is forgotten, mistyped or wrongly optional does not compile. */
  readonly fields: () => Fields<RecordOfKind[K]>;
  /** Rules over several fields. */
  readonly rules?: () => readonly Rule<RecordOfKind[K]>[];
}
