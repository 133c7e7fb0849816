import type { FieldValue } from '../model/field';
import { isJsonTable, type Json } from '../model/json';
import type { Box3, PlanPoint, TurnDegrees, Vector3 } from '../model/vector';
import {
  finite,
  later,
  made,
  orNull,
  row,
  ruled,
  shape,
  text,
  told,
  type Field,
  type OptionalField,
  type Shape,
} from './field';
import { KEY_PATTERN, MAX_KEY_LETTERS, keyFault } from './key-text';

/** Farthest coordinate that a level may use, metres. */
export const FARTHEST_COORDINATE_METRES = 100000;
/** Most planes of one block. */
export const MAX_BLOCK_PLANES = 128;
/** Most knots of one path. */
export const MAX_PATH_KNOTS = 10000;
/** Most corners of one wall, and most openings in it. */
export const MAX_WALL_CORNERS = 200;
export const MAX_WALL_OPENINGS = 200;
/** Most strata in one level. */
export const MAX_STRATA = 400;

/** Most of a turn, degrees either way. */
const MAX_TURN_DEGREES = 36000;

/** Longest id, letters. */
const MAX_ID_LETTERS = 80;
/** Longest id of a patch: those of its thing and its level, and two dots between. */
const MAX_PATCH_ID_LETTERS = 2 * MAX_ID_LETTERS + 2;

const ID_PATTERN = {
  matches: /^[A-Za-z0-9_-][A-Za-z0-9._-]*$/,
  message: 'must be letters, digits, dots, dashes or underscores, without a dot at the start',
};
/** A table must never get it as a name. */
const NO_ID = '__proto__';
const idUpTo = (most: number): Field<string> => {
  const plain = text({ min: 1, max: most, pattern: ID_PATTERN });
  return made(
    (value) => plain.check(value) && value !== NO_ID,
    () => plain.yup.notOneOf([NO_ID]),
  );
};
export const id = (): Field<string> => idUpTo(MAX_ID_LETTERS);
/** Whether the parts of an item have an id each. */
export const hasOwnIds = (parts: readonly { readonly id: string }[]): boolean =>
  new Set(parts.map((part) => part.id)).size === parts.length;
export const patchIdText = (): Field<string> => idUpTo(MAX_PATCH_ID_LETTERS);
/** Characters that are not seen and change how other text is shown or sorted: controls, and marks of direction. */
const UNSEEN = /[\u0000-\u001f\u007f-\u009f\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069]/;
export const name = (): Field<string> =>
  ruled(text({ min: 1, max: 200 }), {
    name: 'seen',
    message: '${path} must not have control or direction characters',
    holds: (value) => !UNSEEN.test(value),
  });
export const key = (): Field<string> =>
  ruled(
    text({
      isFilled: true,
      max: MAX_KEY_LETTERS,
      pattern: {
        matches: KEY_PATTERN,
        message: '${path} must be small letters a to z, digits and single dashes between them',
      },
    }),
    {
      name: 'reserved',
      message: '${path} must not be a file name that some systems keep for themselves',
      holds: (value) => keyFault(value) === undefined,
    },
  );
export const order = (): Field<string> => text({ min: 1, max: 200 });
export const coordinate = (): Field<number> => finite(-FARTHEST_COORDINATE_METRES, FARTHEST_COORDINATE_METRES);
export const vector = (): Field<Vector3> => row(coordinate(), coordinate(), coordinate());
export const yaw = (): Field<number> => finite(-MAX_TURN_DEGREES, MAX_TURN_DEGREES);
export const turn = (): Field<TurnDegrees> => row(yaw(), yaw(), yaw());
export const planPoint = (): Field<PlanPoint> => row(coordinate(), coordinate());
export const moment = (): Field<string | null> =>
  orNull(
    text({
      max: 40,
      pattern: {
        matches: /^\d{4}-\d\d-\d\dT[\d:.]+Z$/,
        message: 'must be a time such as 2026-01-31T12:00:00.000Z',
      },
    }),
  );
export const box = (): Shape<Box3> => shape<Box3>({ min: vector(), max: vector() });

const LEAST_SCALE = 0.001;
const GREATEST_SCALE = 1000;
/** Below 0 where a placement is mirrored across that axis of its own. */
const scaleOfAxis = (): Field<number> =>
  told(
    {
      anyOf: [
        { type: 'number', minimum: LEAST_SCALE, maximum: GREATEST_SCALE },
        { type: 'number', minimum: -GREATEST_SCALE, maximum: -LEAST_SCALE },
      ],
    },
    {
      name: 'scale',
      message: `must be ${LEAST_SCALE} to ${GREATEST_SCALE}, or as much below 0 where it is mirrored`,
      holds: (value) =>
        typeof value === 'number' && Math.abs(value) >= LEAST_SCALE && Math.abs(value) <= GREATEST_SCALE,
    },
  );
export const scale = (): Field<Vector3> => row(scaleOfAxis(), scaleOfAxis(), scaleOfAxis());

/** Most values of one list. */
const MAX_LIST_VALUES = 1000;
/** Longest text of a value, characters. */
const MAX_TEXT_LENGTH = 20000;

const isPoint = (value: unknown): boolean =>
  Array.isArray(value) &&
  value.length === 3 &&
  value.every((part) => typeof part === 'number' && Number.isFinite(part));
const isScalar = (value: unknown): boolean =>
  typeof value === 'boolean' ||
  (typeof value === 'number' && Number.isFinite(value)) ||
  (typeof value === 'string' && value.length <= MAX_TEXT_LENGTH) ||
  isPoint(value);
const isFieldValue = (value: unknown): boolean =>
  value === null ||
  value === undefined ||
  isScalar(value) ||
  (Array.isArray(value) && value.length <= MAX_LIST_VALUES && value.every(isScalar));
const scalarTypes = ['string', 'number', 'boolean'];
const fieldValueJson: Json = {
  anyOf: [
    { type: [...scalarTypes, 'null'] },
    {
      type: 'array',
      maxItems: MAX_LIST_VALUES,
      items: { anyOf: [{ type: scalarTypes }, { type: 'array', items: { type: 'number' }, minItems: 3, maxItems: 3 }] },
    },
  ],
};
export const fieldValue = (): Field<FieldValue> =>
  told(fieldValueJson, {
    name: 'value',
    message: 'must be text, a finite number, yes/no, a point, a list of these or nothing',
    holds: isFieldValue,
  });
type Values = Readonly<Record<string, FieldValue>>;
const VALUES_RULE = {
  name: 'values',
  message: 'must be a table of at most 200 values: text, finite numbers, yes/no, points, lists of these or nothing',
  holds: (value: unknown): boolean =>
    isJsonTable(value) && Object.keys(value).length <= 200 && Object.values(value).every(isFieldValue),
};
export const values = (): Field<Values> => told({ type: 'object', additionalProperties: fieldValueJson }, VALUES_RULE);
export const ownValues = (): OptionalField<Values | null> =>
  later(told<Values>({ type: ['object', 'null'], additionalProperties: fieldValueJson }, VALUES_RULE));
export const sha256 = (): Field<string> =>
  text({ isFilled: true, pattern: { matches: /^[0-9a-f]{64}$/, message: 'must be a SHA-256 in hexadecimal' } });
export const groupOf = (): OptionalField<string | null> => later(text({ max: 80 }));
export const day = (): Field<string> =>
  text({
    isFilled: true,
    pattern: { matches: /^\d{4}-\d\d-\d\d$/, message: 'must be a date such as 2026-01-31' },
  });
export const jsonTable = (): Field<Readonly<Record<string, Json>>> =>
  told({ type: 'object' }, { name: 'table', message: 'must be a table', holds: isJsonTable });
