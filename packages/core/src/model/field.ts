import type { Json } from './json';

export const FIELD_TYPES = ['text', 'number', 'choice', 'yes/no', 'date'] as const;
export type FieldType = (typeof FIELD_TYPES)[number];

/** A typed value that every level has. */
export interface Field {
  readonly id: string;
  /** Name of the value inside `level.values`. */
  readonly key: string;
  readonly name: string;
  readonly type: FieldType;
  /** Allowed values of a choice, in order; empty for other types. */
  readonly choices: readonly string[];
  readonly order: string;
}

/** A value of a field: null when not filled. Dates are 'YYYY-MM-DD'. */
export type FieldValue = Extract<Json, null | boolean | number | string>;
