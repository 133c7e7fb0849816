import type { AnyObjectSchema } from 'yup';
import { ITEM_SCHEMAS } from '../items/stored';
import type { EditableKind } from '../model/records';
import { STORED_RECORDS } from '../records/stored';

/** The one source of every record's validation and of the published JSON Schema. Strict: nothing unknown, nothing coerced. */
export const RECORD_SCHEMAS: Readonly<Record<EditableKind, AnyObjectSchema>> = { ...STORED_RECORDS, ...ITEM_SCHEMAS };
