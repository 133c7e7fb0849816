import type { AnyObjectSchema, Schema } from 'yup';
import type { RecordKind, RecordOfKind } from '../model/records';

/** How records of a kind are validated. Strict: nothing unknown, nothing coerced. One in each room; `STORED` lists them. */
export interface StoredRecordSpec<K extends RecordKind> {
  /** Every field: one that is forgotten or mistyped does not compile. */
  readonly fields: () => { readonly [F in keyof RecordOfKind[K]]-?: Schema };
  /** Rules over several fields. */
  readonly rules?: (schema: AnyObjectSchema) => AnyObjectSchema;
}
