import { array, boolean, mixed, number, object, string, tuple, type AnyObjectSchema, type MixedSchema, type Schema } from 'yup';
import { BLOCK_SIGHTS } from '../model/block';
import type { CodePattern } from '../model/code-pattern';
import type { CellGrid } from '../model/cell-grid';
import { GROUP_COLOURS } from '../model/group';
import { PATCH_CHANGES, patchId, type Patch } from '../model/patch';
import { FIELD_FIGURES, FIELD_TYPES } from '../model/field';
import { PURPOSES } from '../model/level';
import { LINK_EVENTS } from '../model/link';
import { MARKER_KINDS } from '../model/marker';
import { PATH_FORMS } from '../model/path';
import { RECIPE_KINDS } from '../model/recipe';
import type { EditableKind } from '../model/records';
import { ITEM_KINDS, OPTIONAL_ITEM_FIELDS, STRATUM_ROLES } from '../model/stratum';
import { CONDITION_TESTS, LEAST_COLUMN_PIXELS, MOST_COLUMN_PIXELS, VIEW_JOINS } from '../model/table-view';
import { CARRIED_COUNTS, UNLOCK_NEEDS, type Gain, type UnlockRule } from '../model/unlock';
import { MOST_TILE_SIDE, SQUARE_MARKS, SQUARE_ROLES, type SquareCode } from '../model/tile-floor';
import { VOLUME_FORMS, type VolumeShape } from '../model/volume';
import { codePatternFault } from '../sets/codes';
import { patternFault } from '../sets/pattern';

const UNLOCK_RULE_JSON = {
  oneOf: [
    { type: 'object', properties: { kind: { enum: ['start', 'code'] } }, required: ['kind'], additionalProperties: false },
    {
      type: 'object',
      properties: { kind: { const: 'after' }, levels: { type: 'array', items: { type: 'string' }, minItems: 1 }, need: { enum: [...UNLOCK_NEEDS] } },
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

/** Farthest coordinate that a level may use, metres. */
export const FARTHEST_COORDINATE_METRES = 100000;
/** Most planes of one block. */
export const MOST_BLOCK_PLANES = 128;
/** Most knots of one path. */
export const MOST_PATH_KNOTS = 10000;
/** Most strata in one level. */
export const MOST_STRATA = 400;

const id = (): Schema =>
  string()
    .required()
    .min(1)
    .max(80)
    .matches(/^[A-Za-z0-9._-]+$/, 'must be letters, digits, dots, dashes or underscores');
const name = (): Schema => string().required().min(1).max(200);
const order = (): Schema => string().required().min(1).max(200);
const finite = (low: number, high: number): Schema =>
  number()
    .required()
    .min(low)
    .max(high)
    .test('finite', 'must be a finite number', (v) => v === undefined || Number.isFinite(v));
const whole = (low: number, high: number): Schema => number().required().integer().min(low).max(high);
const coordinate = (): Schema => finite(-FARTHEST_COORDINATE_METRES, FARTHEST_COORDINATE_METRES);
const vector = (): Schema => tuple([coordinate(), coordinate(), coordinate()]).required();
const turn = (): Schema => tuple([finite(-36000, 36000), finite(-36000, 36000), finite(-36000, 36000)]).required();
const planPoint = (): Schema => tuple([coordinate(), coordinate()]).required();
const moment = (): Schema =>
  string()
    .nullable()
    .defined()
    .max(40)
    .matches(/^\d{4}-\d\d-\d\dT[\d:.]+Z$/, 'must be a time such as 2026-01-31T12:00:00.000Z');
const shape = (fields: Record<string, Schema>): AnyObjectSchema => object(fields).noUnknown().strict().required() as AnyObjectSchema;
const box = (): AnyObjectSchema => shape({ min: vector(), max: vector() });
const scale = (): Schema => tuple([finite(0.001, 1000), finite(0.001, 1000), finite(0.001, 1000)]).required();

const stackEntry = shape({ stratum: id(), switchedOff: boolean().required() });
/** Most values of one list. */
export const MOST_LIST_VALUES = 1000;
/** Longest text of a value, characters. */
export const MOST_TEXT_LENGTH = 20000;

const isPoint = (value: unknown): boolean => Array.isArray(value) && value.length === 3 && value.every((part) => typeof part === 'number' && Number.isFinite(part));
const isScalar = (value: unknown): boolean =>
  typeof value === 'boolean' || (typeof value === 'number' && Number.isFinite(value)) || (typeof value === 'string' && value.length <= MOST_TEXT_LENGTH) || isPoint(value);
const isFieldValue = (value: unknown): boolean =>
  value === null || value === undefined || isScalar(value) || (Array.isArray(value) && value.length <= MOST_LIST_VALUES && value.every(isScalar));
const scalarTypes = ['string', 'number', 'boolean'];
const fieldValueJson = {
  anyOf: [
    { type: [...scalarTypes, 'null'] },
    { type: 'array', maxItems: MOST_LIST_VALUES, items: { anyOf: [{ type: scalarTypes }, { type: 'array', items: { type: 'number' }, minItems: 3, maxItems: 3 }] } },
  ],
};
const fieldValue = (): Schema =>
  mixed().nullable().meta({ jsonSchema: fieldValueJson }).test('value', 'must be text, a finite number, yes/no, a point, a list of these or nothing', isFieldValue);
const VALUES_RULE = 'must be a table of at most 200 values: text, finite numbers, yes/no, points, lists of these or nothing';
const isValueTable = (v: unknown): boolean => typeof v === 'object' && v !== null && !Array.isArray(v) && Object.keys(v).length <= 200 && Object.values(v).every(isFieldValue);
const values = mixed<Record<string, unknown>>()
  .required()
  .meta({ jsonSchema: { type: 'object', additionalProperties: fieldValueJson } })
  .test('values', VALUES_RULE, isValueTable);
/** Came after the first records were kept: may be absent. */
const later = (schema: Schema): Schema => (schema as unknown as MixedSchema).nullable().optional().default(undefined);
const sha256 = (): Schema =>
  string()
    .required()
    .matches(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hexadecimal');

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
  after: shape({ kind: string().required().oneOf(['after']), levels: array().of(id()).required().min(1).max(1000), need: string().required().oneOf(UNLOCK_NEEDS) }),
  value: shape({ kind: string().required().oneOf(['value']), value: id(), least: finite(-1e12, 1e12) }),
};
const unlockRule = mixed<UnlockRule>()
  .required()
  .meta({ jsonSchema: UNLOCK_RULE_JSON })
  .test('rule', 'must be an unlock rule: start, code, after levels, or a carried value and its least', (rule) => {
    const kind = (rule as UnlockRule | undefined)?.kind;
    return kind !== undefined && Object.hasOwn(UNLOCK_RULES, kind) && UNLOCK_RULES[kind].isValidSync(rule, { strict: true });
  });

const groupOf = (): Schema => later(string().max(80));
const day = (): Schema =>
  string()
    .required()
    .matches(/^\d{4}-\d\d-\d\d$/, 'must be a date such as 2026-01-31');
const ownValues = (): Schema =>
  mixed<Record<string, unknown>>()
    .nullable()
    .optional()
    .default(undefined)
    .meta({ jsonSchema: { type: ['object', 'null'], additionalProperties: fieldValueJson } })
    .test('values', VALUES_RULE, (v) => v === null || v === undefined || isValueTable(v));
const jsonTable = (): Schema =>
  mixed<Record<string, unknown>>()
    .required()
    .meta({ jsonSchema: { type: 'object' } })
    .test('table', 'must be a table', (v) => typeof v === 'object' && !Array.isArray(v));

const VOLUME_SHAPES: Readonly<Record<VolumeShape['form'], AnyObjectSchema>> = {
  box: shape({ form: string().required().oneOf(['box']), size: tuple([finite(0.001, 1e5), finite(0.001, 1e5), finite(0.001, 1e5)]).required() }),
  sphere: shape({ form: string().required().oneOf(['sphere']), radiusMetres: finite(0.001, 1e5) }),
  prism: shape({ form: string().required().oneOf(['prism']), outline: array().of(planPoint()).required().min(3).max(MOST_BLOCK_PLANES), heightMetres: finite(0.001, 1e5) }),
};
const volumeShape = (): Schema =>
  mixed<VolumeShape>()
    .required()
    .meta({ jsonSchema: { type: 'object', properties: { form: { enum: [...VOLUME_FORMS] } }, required: ['form'] } })
    .test('shape', 'must be a box with its size, a sphere with its radius or a prism with its outline and height', (one) => {
      const form = (one as VolumeShape | undefined)?.form;
      return form !== undefined && Object.hasOwn(VOLUME_SHAPES, form) && VOLUME_SHAPES[form].isValidSync(one, { strict: true });
    });
/** Most codes of a legend. */
const MOST_CODES = 200;
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
const isRowTable = (v: unknown): boolean =>
  typeof v === 'object' && v !== null && !Array.isArray(v) && Object.entries(v).every(([row, text]) => /^\d{1,3}$/.test(row) && Number(row) < MOST_TILE_SIDE && typeof text === 'string' && text.length <= MOST_TILE_SIDE * 30);
const groupTemplate = (): AnyObjectSchema =>
  shape({
    name: name(),
    parts: array()
      .of(shape({ name: name(), parent: number().integer().min(0).nullable().defined(), category: string().defined().max(200), colour: string().required().oneOf(GROUP_COLOURS) }))
      .required()
      .min(1)
      .max(100)
      .test('parents', 'a part must stand in one that comes before it', (parts) => (parts ?? []).every(({ parent }, i) => parent === null || (parent as number) < i)),
  });
const PATCHED_KINDS = ITEM_KINDS.filter((kind) => kind !== 'patch' && kind !== 'pin' && kind !== 'recipe');

/** An added thing must be whole, a changed one holds field by field, a hidden one says nothing. */
function holdsPatch({ kind, target, change, fields }: Patch): boolean {
  if (!(PATCHED_KINDS as readonly string[]).includes(kind) || typeof fields !== 'object') return false;
  if (change === 'hidden') return Object.keys(fields).length === 0;
  const schema = RECORD_SCHEMAS[kind];
  if (change === 'added') return fields['id'] === target && schema.isValidSync(fields, { strict: true });
  return Object.entries(fields).every(([field, value]) => {
    const one = Object.hasOwn(schema.fields, field) && field !== 'id' ? (schema.fields[field] as Schema) : undefined;
    return one?.isValidSync(value === null && OPTIONAL_ITEM_FIELDS[kind].includes(field) ? undefined : value, { strict: true }) === true;
  });
}

/** The one source of every record's validation and of the published JSON Schema. Strict: nothing unknown, nothing coerced. */
export const RECORD_SCHEMAS: Readonly<Record<EditableKind, AnyObjectSchema>> = {
  collection: shape({
    id: id(),
    name: name(),
    ranks: array().of(name()).required().min(1).max(8),
    view: shape({ fieldOfViewDegrees: finite(1, 170), pictureHeightPixels: whole(16, 32768), errorPixels: finite(0.01, 1000) })
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
    legend: later(array().of(squareCode()).max(MOST_CODES).test('legend', 'each code may stand in it once', (codes) => new Set((codes ?? []).map((one) => (one as SquareCode).code)).size === (codes ?? []).length)),
    movement: later(shape({ neighbours: number().required().oneOf([4, 8]), upSteps: whole(0, 1000), downSteps: whole(0, 1000), mayFall: boolean().required() })),
    groupTemplates: later(array().of(groupTemplate()).max(100)),
  }),
  set: shape({ id: id(), name: name(), parent: string().nullable().defined(), order: order(), binned: moment() }),
  level: shape({
    id: id(),
    name: name(),
    set: id(),
    order: order(),
    purpose: string().required().oneOf(PURPOSES),
    code: string().defined().max(40),
    values,
    strata: array().of(stackEntry).required().max(MOST_STRATA),
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
    low: later(number().test('finite', 'must be a finite number', (v) => v === undefined || v === null || Number.isFinite(v))),
    high: later(number().test('finite', 'must be a finite number', (v) => v === undefined || v === null || Number.isFinite(v))),
    pattern: later(
      string()
        .max(500)
        .test('pattern', 'pattern must be a regular expression, without look-around and back-references', (v) => v === undefined || v === null || patternFault(v) === null),
    ),
    target: later(string().max(80)),
    figure: later(string().oneOf(FIELD_FIGURES)),
    counted: later(string().max(80)),
  }),
  register: shape({ id: id(), name: name(), help: string().defined().max(2000), order: order(), kindsOf: later(string().oneOf(['volume', 'marker'])) }),
  entry: shape({ id: id(), register: id(), name: name(), order: order(), values }),
  carriedValue: shape({ id: id(), name: name(), start: finite(-1e12, 1e12), counts: string().required().oneOf(CARRIED_COUNTS), order: order() }),
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
        .of(shape({ column: id(), pixels: whole(LEAST_COLUMN_PIXELS, MOST_COLUMN_PIXELS) }))
        .max(400),
    ),
    frozen: later(number().integer().min(0).max(20)),
    group: later(string().max(80)),
  }),
  levelOrder: shape({
    id: id(),
    rules: array().of(unlockRule).required().max(50),
    gains: array()
      .of(shape({ value: id(), least: finite(-1e12, 1e12), most: finite(-1e12, 1e12), field: later(string().max(41)) }).test('gain', 'most must not be below least', holdsGain))
      .required()
      .max(100),
    resets: array().of(id()).required().max(100),
  }),
  stratum: shape({ id: id(), name: name(), role: string().required().oneOf(STRATUM_ROLES), owner: string().nullable().defined() }),
  kit: shape({ id: id(), name: name(), mesh: sha256() }),
  piece: shape({
    id: id(),
    kit: id(),
    name: name(),
    bounds: box(),
    steps: array()
      .of(shape({ triangles: whole(0, 1e8), vertices: whole(0, 1e8), materials: whole(1, 1000), bytes: whole(0, 1e11), deviationMetres: finite(0, 1e6).optional() as Schema }))
      .required()
      .min(1)
      .max(16),
  }),
  device: shape({
    id: id(),
    name: name(),
    order: order(),
    budget: shape({
      triangles: whole(1, 1e10),
      drawCalls: whole(1, 1e7),
      memoryBytes: whole(1, 1e12),
      loadMs: finite(1, 1e7),
      diskBytes: whole(1, 1e13),
    }),
    seekMs: finite(0, 10000),
    diskBytesPerSecond: finite(1, 1e12),
    unpackBytesPerSecond: finite(1, 1e12),
    activationSliceMs: finite(0.01, 1000),
    activationBytesPerMs: finite(1, 1e10),
    framesPerSecond: finite(1, 1000),
  }),
  acceptance: shape({
    id: string().required().max(300),
    reason: string().required().min(1).max(2000),
    until: string()
      .required()
      .matches(/^\d{4}-\d\d-\d\d$/, 'must be a date such as 2026-01-31'),
    person: name(),
  }),
  block: shape({
    id: id(),
    name: string().defined().max(200),
    position: vector(),
    turn: turn(),
    planes: array()
      .of(tuple([finite(-1e6, 1e6), finite(-1e6, 1e6), finite(-1e6, 1e6), finite(-1e9, 1e9)]).required())
      .required()
      .min(4)
      .max(MOST_BLOCK_PLANES),
    sight: string().required().oneOf(BLOCK_SIGHTS),
    material: name(),
    faces: later(
      array()
        .of(shape({ plane: whole(0, MOST_BLOCK_PLANES - 1), surface: name(), tileMetres: tuple([finite(0.001, 1e5), finite(0.001, 1e5)]).required(), offsetMetres: planPoint() }))
        .max(MOST_BLOCK_PLANES),
    ),
    group: groupOf(),
  }),
  placement: shape({ id: id(), piece: id(), position: vector(), turn: turn(), scale: scale(), group: groupOf(), values: ownValues() }),
  marker: shape({ id: id(), kind: string().required().oneOf(MARKER_KINDS), position: vector(), turn: finite(-36000, 36000), entry: later(string().max(80)), values: ownValues(), group: groupOf() }),
  volume: shape({ id: id(), name: string().defined().max(200), kind: string().defined().max(80), position: vector(), turn: turn(), shape: volumeShape(), values: ownValues(), group: groupOf() }),
  link: shape({
    id: id(),
    emitter: id(),
    event: string().required().oneOf(LINK_EVENTS),
    who: string().defined().max(200),
    once: boolean().required(),
    delaySeconds: finite(0, 1e6),
    action: string().required().min(1).max(200),
    target: id(),
    arguments: values,
  }),
  path: shape({
    id: id(),
    name: string().defined().max(200),
    form: string().required().oneOf(PATH_FORMS),
    closed: boolean().required(),
    knots: array()
      .of(shape({ position: vector(), widthMetres: finite(0, 10000), tags: array().of(name()).required().max(50), handle: vector().nullable().defined() as Schema }))
      .required()
      .min(2)
      .max(MOST_PATH_KNOTS),
    group: groupOf(),
  }),
  tileFloor: shape({
    id: id(),
    name: string().defined().max(200),
    position: vector(),
    squareMetres: finite(0.01, 1000),
    columns: whole(1, MOST_TILE_SIDE),
    rows: whole(1, MOST_TILE_SIDE),
    squares: mixed<Record<string, unknown>>()
      .required()
      .meta({ jsonSchema: { type: 'object', additionalProperties: { type: 'string' } } })
      .test('rows', 'must be rows of squares by their numbers from 0', isRowTable),
    group: groupOf(),
  }),
  group: shape({
    id: id(),
    name: name(),
    parent: string().nullable().defined().max(80),
    category: string().defined().max(200),
    colour: string().required().oneOf(GROUP_COLOURS),
    switchedOff: boolean().required(),
    guard: string().defined().max(2000),
    aside: shape({ reason: string().required().min(1).max(2000), since: day() }).nullable().defined().default(undefined),
  }),
  patch: shape({
    id: id(),
    level: id(),
    kind: string().required().oneOf(PATCHED_KINDS),
    target: id(),
    change: string().required().oneOf(PATCH_CHANGES),
    fields: jsonTable(),
    was: jsonTable(),
  })
    .test('patch-id', 'a patch must be named after its thing and its level', (patch) => (patch as unknown as Patch).id === patchId((patch as unknown as Patch).level, (patch as unknown as Patch).target))
    .test('patch-fields', 'what a patch changes must be as the thing itself could be', (patch) => holdsPatch(patch as unknown as Patch)),
  cellGrid: shape({
    id: id(),
    sizeMetres: finite(1, 10000),
    origin: planPoint(),
    loadMetres: finite(0, 10000),
    dropMetres: finite(0, 20000),
    readyMetres: finite(0, 10000),
    resident: array().of(id()).required().max(MOST_STRATA),
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
  recipe: shape({
    id: id(),
    name: name(),
    kind: string().required().oneOf(RECIPE_KINDS),
    position: vector(),
    columns: whole(3, 2000),
    rows: whole(3, 2000),
    squareMetres: finite(0.25, 100),
    heightMetres: finite(0.5, 1000),
    openShare: finite(0.001, 1),
    birthChance: finite(0, 1),
    mostWalkers: whole(1, 1000),
    border: whole(1, 100),
    stepLimit: whole(1, 1e9),
    seed: string().required().min(1).max(100),
    material: name(),
    hasMarkers: boolean().required(),
  }),
  pin: shape({
    id: id(),
    recipe: id(),
    column: whole(0, 2000),
    row: whole(0, 2000),
    columns: whole(1, 2000),
    rows: whole(1, 2000),
    hidden: boolean().required(),
    offset: vector(),
  }),
  divider: shape({ id: id(), from: planPoint(), to: planPoint(), bottom: coordinate(), top: coordinate(), group: groupOf() }),
};

