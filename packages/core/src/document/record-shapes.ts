import type { Shape } from '../fields/field';
import { ITEM_SHAPES } from '../items/stored';
import type { EditableKind } from '../model/records';
import { RECORD_SHAPES } from '../records/stored';

/** The one source of every record's validation and of the published JSON Schema. Strict: nothing unknown, nothing coerced. */
export const SHAPES: { readonly [K in EditableKind]: Pick<Shape<unknown>, 'yup' | 'check' | 'fields'> } = {
  ...RECORD_SHAPES,
  ...ITEM_SHAPES,
};
