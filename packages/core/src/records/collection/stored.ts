import { array, boolean, number, string, type AnyObjectSchema } from 'yup';
import type { CodePattern } from '../../model/code-pattern';
import { GROUP_COLOURS } from '../../model/group';
import { SQUARE_MARKS, SQUARE_ROLES, type SquareCode } from '../../model/tile-floor';
import { codePatternFault } from '../../fields/code-pattern-fault';
import { finite, id, later, name, shape, whole } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

/** Most codes of a legend. */
const MAX_CODES = 200;

const squareCode = (): AnyObjectSchema =>
  shape({
    code: string()
      .required()
      .matches(/^[A-Za-z][A-Za-z0-9]{0,7}$/, 'must start with a letter, then letters and digits, eight at most'),
    name: name(),
    colour: string().required().oneOf(GROUP_COLOURS),
    mark: string().required().oneOf(SQUARE_MARKS),
    mayEnter: boolean().required(),
    visits: whole(0, 999),
    height: whole(-999, 999),
    role: string().required().oneOf(SQUARE_ROLES),
  });

const groupTemplate = (): AnyObjectSchema =>
  shape({
    name: name(),
    parts: array()
      .of(
        shape({
          name: name(),
          parent: number().integer().min(0).nullable().defined(),
          category: string().defined().max(200),
          colour: string().required().oneOf(GROUP_COLOURS),
        }),
      )
      .required()
      .min(1)
      .max(100)
      .test('parents', 'a part must stand in one that comes before it', (parts) =>
        (parts ?? []).every(({ parent }, i) => parent === null || (parent as number) < i),
      ),
  });

export const STORED_COLLECTION: StoredRecordSpec<'collection'> = {
  fields: () => ({
    id: id(),
    name: name(),
    ranks: array().of(name()).required().min(1).max(8),
    view: shape({
      fieldOfViewDegrees: finite(1, 170),
      pictureHeightPixels: whole(16, 32768),
      errorPixels: finite(0.01, 1000),
    })
      .nullable()
      .optional()
      .default(undefined),
    codes: later(
      shape({ alphabet: string().required().min(2).max(200), length: whole(1, 40) }).test(
        'codes',
        'must give codes: at least two different characters, none of them twice, no blanks',
        (pattern) => {
          return !pattern || codePatternFault(pattern as CodePattern) === null;
        },
      ),
    ),
    readiness: later(
      shape({
        fields: array().of(id()).required().max(200),
        spawn: boolean().required(),
        exit: boolean().required(),
        code: boolean().required(),
        bakes: boolean().required(),
        findings: boolean().required(),
        devices: array().of(id()).required().max(100),
      }),
    ),
    legend: later(
      array()
        .of(squareCode())
        .max(MAX_CODES)
        .test(
          'legend',
          'each code may stand in it once',
          (codes) => new Set((codes ?? []).map((one) => (one as SquareCode).code)).size === (codes ?? []).length,
        ),
    ),
    movement: later(
      shape({
        neighbours: number().required().oneOf([4, 8]),
        upSteps: whole(0, 1000),
        downSteps: whole(0, 1000),
        mayFall: boolean().required(),
      }),
    ),
    groupTemplates: later(array().of(groupTemplate()).max(100)),
  }),
};
