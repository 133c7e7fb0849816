import { mixed, number, object, string, tuple, type AnyObjectSchema, type MixedSchema, type Schema } from 'yup';
import { KEY_PATTERN, MAX_KEY_LETTERS, keyFault } from './key-text';

/** Farthest coordinate that a level may use, metres. */
export const FARTHEST_COORDINATE_METRES = 100000;
/** Most planes of one block. */
export const MAX_BLOCK_PLANES = 128;
/** Most knots of one path. */
export const MAX_PATH_KNOTS = 10000;
/** Most strata in one level. */
export const MAX_STRATA = 400;

/** Longest id, letters. */
const MAX_ID_LETTERS = 80;
/** Longest id of a patch: those of its thing and its level, and two dots between. */
const MAX_PATCH_ID_LETTERS = 2 * MAX_ID_LETTERS + 2;

const idUpTo = (most: number): Schema =>
  string()
    .required()
    .min(1)
    .max(most)
    .matches(
      /^[A-Za-z0-9_-][A-Za-z0-9._-]*$/,
      'must be letters, digits, dots, dashes or underscores, without a dot at the start',
    )
    .notOneOf(['__proto__']);
export const id = (): Schema => idUpTo(MAX_ID_LETTERS);
export const patchIdText = (): Schema => idUpTo(MAX_PATCH_ID_LETTERS);
/** Characters that are not seen and change how other text is shown or sorted: controls, and marks of direction. */
const UNSEEN = /[\u0000-\u001f\u007f-\u009f\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069]/;
export const name = (): Schema =>
  string()
    .required()
    .min(1)
    .max(200)
    .test('seen', '${path} must not have control or direction characters', (v) => v === undefined || !UNSEEN.test(v));
export const key = (): Schema =>
  string()
    .required()
    .max(MAX_KEY_LETTERS)
    .matches(KEY_PATTERN, '${path} must be small letters a to z, digits and single dashes between them')
    .test(
      'reserved',
      '${path} must not be a file name that some systems keep for themselves',
      (v) => v === undefined || !KEY_PATTERN.test(v) || keyFault(v) === undefined,
    );
export const order = (): Schema => string().required().min(1).max(200);
export const finite = (low: number, high: number): Schema =>
  number()
    .required()
    .min(low)
    .max(high)
    .test('finite', 'must be a finite number', (v) => v === undefined || Number.isFinite(v));
export const whole = (low: number, high: number): Schema => number().required().integer().min(low).max(high);
export const coordinate = (): Schema => finite(-FARTHEST_COORDINATE_METRES, FARTHEST_COORDINATE_METRES);
export const vector = (): Schema => tuple([coordinate(), coordinate(), coordinate()]).required();
export const turn = (): Schema =>
  tuple([finite(-36000, 36000), finite(-36000, 36000), finite(-36000, 36000)]).required();
export const planPoint = (): Schema => tuple([coordinate(), coordinate()]).required();
export const moment = (): Schema =>
  string()
    .nullable()
    .defined()
    .max(40)
    .matches(/^\d{4}-\d\d-\d\dT[\d:.]+Z$/, 'must be a time such as 2026-01-31T12:00:00.000Z');
export const shape = (fields: Record<string, Schema>): AnyObjectSchema =>
  object(fields).noUnknown().strict().required() as AnyObjectSchema;
export const box = (): AnyObjectSchema => shape({ min: vector(), max: vector() });
export const scale = (): Schema => tuple([finite(0.001, 1000), finite(0.001, 1000), finite(0.001, 1000)]).required();

/** Most values of one list. */
export const MAX_LIST_VALUES = 1000;
/** Longest text of a value, characters. */
export const MAX_TEXT_LENGTH = 20000;

export const isPoint = (value: unknown): boolean =>
  Array.isArray(value) &&
  value.length === 3 &&
  value.every((part) => typeof part === 'number' && Number.isFinite(part));
export const isScalar = (value: unknown): boolean =>
  typeof value === 'boolean' ||
  (typeof value === 'number' && Number.isFinite(value)) ||
  (typeof value === 'string' && value.length <= MAX_TEXT_LENGTH) ||
  isPoint(value);
export const isFieldValue = (value: unknown): boolean =>
  value === null ||
  value === undefined ||
  isScalar(value) ||
  (Array.isArray(value) && value.length <= MAX_LIST_VALUES && value.every(isScalar));
export const scalarTypes = ['string', 'number', 'boolean'];
export const fieldValueJson = {
  anyOf: [
    { type: [...scalarTypes, 'null'] },
    {
      type: 'array',
      maxItems: MAX_LIST_VALUES,
      items: { anyOf: [{ type: scalarTypes }, { type: 'array', items: { type: 'number' }, minItems: 3, maxItems: 3 }] },
    },
  ],
};
export const fieldValue = (): Schema =>
  mixed()
    .nullable()
    .meta({ jsonSchema: fieldValueJson })
    .test('value', 'must be text, a finite number, yes/no, a point, a list of these or nothing', isFieldValue);
export const VALUES_RULE =
  'must be a table of at most 200 values: text, finite numbers, yes/no, points, lists of these or nothing';
export const isValueTable = (v: unknown): boolean =>
  typeof v === 'object' &&
  v !== null &&
  !Array.isArray(v) &&
  Object.keys(v).length <= 200 &&
  Object.values(v).every(isFieldValue);
export const values = mixed<Record<string, unknown>>()
  .required()
  .meta({ jsonSchema: { type: 'object', additionalProperties: fieldValueJson } })
  .test('values', VALUES_RULE, isValueTable);
/** Came after the first records were kept: may be absent. */
export const later = (schema: Schema): Schema =>
  (schema as unknown as MixedSchema).nullable().optional().default(undefined);
/** Must be there, but may be nothing. */
export const orNull = (schema: Schema): Schema => (schema as unknown as MixedSchema).nullable().defined();
export const sha256 = (): Schema =>
  string()
    .required()
    .matches(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hexadecimal');

export const groupOf = (): Schema => later(string().max(80));
export const day = (): Schema =>
  string()
    .required()
    .matches(/^\d{4}-\d\d-\d\d$/, 'must be a date such as 2026-01-31');
export const ownValues = (): Schema =>
  mixed<Record<string, unknown>>()
    .nullable()
    .optional()
    .default(undefined)
    .meta({ jsonSchema: { type: ['object', 'null'], additionalProperties: fieldValueJson } })
    .test('values', VALUES_RULE, (v) => v === null || v === undefined || isValueTable(v));
export const jsonTable = (): Schema =>
  mixed<Record<string, unknown>>()
    .required()
    .meta({ jsonSchema: { type: 'object' } })
    .test('table', 'must be a table', (v) => typeof v === 'object' && !Array.isArray(v));
