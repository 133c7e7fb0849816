import { array, boolean, mixed, number, string, type AnyObjectSchema, type Schema } from 'yup';
import type { CodePattern } from '../model/code-pattern';
import type { CellGrid } from '../model/cell-grid';
import { DEVICE_LIMITS, DEVICE_SPEEDS, type DeviceField } from '../model/device-fields';
import { FIELD_FIGURES, FIELD_TYPES } from '../model/field';
import { GROUP_COLOURS } from '../model/group';
import { PURPOSES } from '../model/level';
import type { EditableKind } from '../model/records';
import { STRATUM_ROLES } from '../model/stratum';
import { CONDITION_TESTS, MIN_COLUMN_PIXELS, MAX_COLUMN_PIXELS, VIEW_JOINS } from '../model/table-view';
import { SQUARE_MARKS, SQUARE_ROLES, type SquareCode } from '../model/tile-floor';
import { CARRIED_COUNTS, UNLOCK_NEEDS, type Gain, type UnlockRule } from '../model/unlock';
import { codePatternFault } from '../sets/codes';
import { patternFault } from '../sets/pattern';
import { ITEM_SCHEMAS } from '../items/stored';
import {
  MAX_STRATA,
  box,
  coordinate,
  day,
  fieldValue,
  finite,
  id,
  key,
  later,
  moment,
  name,
  order,
  planPoint,
  sha256,
  shape,
  values,
  whole,
} from './schema-parts';

const UNLOCK_RULE_JSON = {
  oneOf: [
    {
      type: 'object',
      properties: { kind: { enum: ['start', 'code'] } },
      required: ['kind'],
      additionalProperties: false,
    },
    {
      type: 'object',
      properties: {
        kind: { const: 'after' },
        levels: { type: 'array', items: { type: 'string' }, minItems: 1 },
        need: { enum: [...UNLOCK_NEEDS] },
      },
      required: ['kind', 'levels', 'need'],
      additionalProperties: false,
    },
    {
      type: 'object',
      properties: { kind: { const: 'value' }, value: { type: 'string' }, least: { type: 'number' } },
      required: ['kind', 'value', 'least'],
      additionalProperties: false,
    },
  ],
};

const stackEntry = shape({ stratum: id(), switchedOff: boolean().required() });
const holdsLoadRule = (grid: unknown): boolean => {
  const { loadMetres, dropMetres, readyMetres } = grid as CellGrid;
  return readyMetres <= loadMetres && loadMetres <= dropMetres;
};

const holdsGain = (gain: unknown): boolean => {
  const { least, most, field } = gain as Gain;
  return Boolean(field) || least <= most;
};
const UNLOCK_RULES: Readonly<Record<UnlockRule['kind'], AnyObjectSchema>> = {
  start: shape({ kind: string().required().oneOf(['start']) }),
  code: shape({ kind: string().required().oneOf(['code']) }),
  after: shape({
    kind: string().required().oneOf(['after']),
    levels: array().of(id()).required().min(1).max(1000),
    need: string().required().oneOf(UNLOCK_NEEDS),
  }),
  value: shape({ kind: string().required().oneOf(['value']), value: id(), least: finite(-1e12, 1e12) }),
};
const unlockRule = mixed<UnlockRule>()
  .required()
  .meta({ jsonSchema: UNLOCK_RULE_JSON })
  .test('rule', 'must be an unlock rule: start, code, after levels, or a carried value and its least', (rule) => {
    const kind = (rule as UnlockRule | undefined)?.kind;
    return (
      kind !== undefined && Object.hasOwn(UNLOCK_RULES, kind) && UNLOCK_RULES[kind].isValidSync(rule, { strict: true })
    );
  });

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
const figures = (fields: Readonly<Record<string, DeviceField>>): Record<string, Schema> =>
  Object.fromEntries(
    Object.entries(fields).map(([key, { min, max, isWhole }]) => [key, isWhole ? whole(min, max) : finite(min, max)]),
  );

/** The one source of every record's validation and of the published JSON Schema. Strict: nothing unknown, nothing coerced. */
export const RECORD_SCHEMAS: Readonly<Record<EditableKind, AnyObjectSchema>> = {
  collection: shape({
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
  set: shape({ id: id(), name: name(), parent: string().nullable().defined(), order: order(), binned: moment() }),
  level: shape({
    id: id(),
    name: name(),
    key: key(),
    set: id(),
    order: order(),
    purpose: string().required().oneOf(PURPOSES),
    code: string().defined().max(40),
    values,
    strata: array().of(stackEntry).required().max(MAX_STRATA),
    openSky: boolean().required(),
    bounds: box().nullable().defined().default(undefined),
    binned: moment(),
  }),
  field: shape({
    id: id(),
    key: string()
      .required()
      .matches(/^[a-z][A-Za-z0-9]{0,40}$/, 'must start with a small letter, then letters and digits'),
    name: name(),
    type: string().required().oneOf(FIELD_TYPES),
    choices: array().of(name()).required().max(200),
    order: order(),
    register: later(string().max(80)),
    list: later(boolean()),
    group: later(string().max(200)),
    help: later(string().max(2000)),
    default: later(fieldValue()),
    required: later(boolean()),
    unique: later(boolean()),
    low: later(
      number().test('finite', 'must be a finite number', (v) => v === undefined || v === null || Number.isFinite(v)),
    ),
    high: later(
      number().test('finite', 'must be a finite number', (v) => v === undefined || v === null || Number.isFinite(v)),
    ),
    pattern: later(
      string()
        .max(500)
        .test(
          'pattern',
          'pattern must be a regular expression, without look-around and back-references',
          (v) => v === undefined || v === null || patternFault(v) === null,
        ),
    ),
    target: later(string().max(80)),
    figure: later(string().oneOf(FIELD_FIGURES)),
    counted: later(string().max(80)),
  }),
  register: shape({
    id: id(),
    name: name(),
    help: string().defined().max(2000),
    order: order(),
    kindsOf: later(string().oneOf(['volume', 'marker'])),
  }),
  entry: shape({ id: id(), register: id(), name: name(), order: order(), values }),
  carriedValue: shape({
    id: id(),
    name: name(),
    start: finite(-1e12, 1e12),
    counts: string().required().oneOf(CARRIED_COUNTS),
    order: order(),
  }),
  tableView: shape({
    id: id(),
    name: name(),
    order: order(),
    register: string().max(80).nullable().defined(),
    join: string().required().oneOf(VIEW_JOINS),
    conditions: array()
      .of(shape({ column: id(), test: string().required().oneOf(CONDITION_TESTS), text: string().defined().max(500) }))
      .required()
      .max(50),
    sorts: array()
      .of(shape({ column: id(), descending: boolean().required() }))
      .required()
      .max(20),
    hidden: array().of(id()).required().max(200),
    columns: later(array().of(id()).max(400)),
    widths: later(
      array()
        .of(shape({ column: id(), pixels: whole(MIN_COLUMN_PIXELS, MAX_COLUMN_PIXELS) }))
        .max(400),
    ),
    frozen: later(number().integer().min(0).max(20)),
    group: later(string().max(80)),
  }),
  levelOrder: shape({
    id: id(),
    rules: array().of(unlockRule).required().max(50),
    gains: array()
      .of(
        shape({
          value: id(),
          least: finite(-1e12, 1e12),
          most: finite(-1e12, 1e12),
          field: later(string().max(41)),
        }).test('gain', 'most must not be below least', holdsGain),
      )
      .required()
      .max(100),
    resets: array().of(id()).required().max(100),
  }),
  stratum: shape({
    id: id(),
    name: name(),
    role: string().required().oneOf(STRATUM_ROLES),
    owner: string().nullable().defined(),
    kit: later(string().max(80)),
    assemblies: later(array().of(id()).max(10000)),
  }),
  kit: shape({ id: id(), name: name(), key: key(), mesh: sha256() }),
  piece: shape({
    id: id(),
    kit: id(),
    name: name(),
    bounds: box(),
    steps: array()
      .of(
        shape({
          triangles: whole(0, 1e8),
          vertices: whole(0, 1e8),
          materials: whole(1, 1000),
          bytes: whole(0, 1e11),
          deviationMetres: finite(0, 1e6).optional() as Schema,
        }),
      )
      .required()
      .min(1)
      .max(16),
  }),
  device: shape({
    id: id(),
    name: name(),
    order: order(),
    budget: shape(figures(DEVICE_LIMITS)),
    ...figures(DEVICE_SPEEDS),
  }),
  acceptance: shape({
    id: string().required().max(300),
    reason: string().required().min(1).max(2000),
    until: day(),
    person: name(),
  }),
  cellGrid: shape({
    id: id(),
    sizeMetres: finite(1, 10000),
    origin: planPoint(),
    loadMetres: finite(0, 10000),
    dropMetres: finite(0, 20000),
    readyMetres: finite(0, 10000),
    resident: array().of(id()).required().max(MAX_STRATA),
  }).test('rule', 'dropMetres must not be below loadMetres, nor loadMetres below readyMetres', holdsLoadRule),
  rehearsal: shape({
    id: id(),
    level: id(),
    name: name(),
    knots: array().of(planPoint()).required().max(2000),
    floorMetres: coordinate(),
    speedMetresPerSecond: finite(0.01, 1000),
    device: id(),
  }),
  ...ITEM_SCHEMAS,
};
