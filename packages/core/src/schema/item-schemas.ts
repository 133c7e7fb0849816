import { array, boolean, mixed, string, tuple, type AnyObjectSchema, type Schema } from 'yup';
import { BLOCK_SIGHTS } from '../model/block';
import { GROUP_COLOURS } from '../model/group';
import { PATH_FORMS } from '../model/level-path';
import { LINK_EVENTS } from '../model/link';
import { MASK_TILE_PIXELS, MAX_MASK_SIDE } from '../model/mask';
import { MARKER_KINDS } from '../model/marker';
import { PATCH_CHANGES, patchId } from '../model/patch';
import type { ItemKind, Patch } from '../model/items';
import { RECIPE_KINDS } from '../model/recipe';
import { isOptionalField, kindsWith } from '../items';
import { MAX_TILE_SIDE } from '../model/tile-floor';
import { VOLUME_FORMS, type VolumeShape } from '../model/volume';
import {
  MAX_BLOCK_PLANES,
  MAX_PATH_KNOTS,
  coordinate,
  day,
  finite,
  groupOf,
  id,
  jsonTable,
  later,
  name,
  orNull,
  patchIdText,
  ownValues,
  planPoint,
  scale,
  shape,
  turn,
  values,
  vector,
  whole,
} from './schema-parts';

const VOLUME_SHAPES: Readonly<Record<VolumeShape['form'], AnyObjectSchema>> = {
  box: shape({
    form: string().required().oneOf(['box']),
    size: tuple([finite(0.001, 1e5), finite(0.001, 1e5), finite(0.001, 1e5)]).required(),
  }),
  sphere: shape({ form: string().required().oneOf(['sphere']), radiusMetres: finite(0.001, 1e5) }),
  prism: shape({
    form: string().required().oneOf(['prism']),
    outline: array().of(planPoint()).required().min(3).max(MAX_BLOCK_PLANES),
    heightMetres: finite(0.001, 1e5),
  }),
};
const volumeShape = (): Schema =>
  mixed<VolumeShape>()
    .required()
    .meta({ jsonSchema: { type: 'object', properties: { form: { enum: [...VOLUME_FORMS] } }, required: ['form'] } })
    .test(
      'shape',
      'must be a box with its size, a sphere with its radius or a prism with its outline and height',
      (one) => {
        const form = (one as VolumeShape | undefined)?.form;
        return (
          form !== undefined &&
          Object.hasOwn(VOLUME_SHAPES, form) &&
          VOLUME_SHAPES[form].isValidSync(one, { strict: true })
        );
      },
    );
const isRowTable = (v: unknown): boolean =>
  typeof v === 'object' &&
  v !== null &&
  !Array.isArray(v) &&
  Object.entries(v).every(
    ([row, text]) =>
      /^\d{1,3}$/.test(row) &&
      Number(row) < MAX_TILE_SIDE &&
      typeof text === 'string' &&
      text.length <= MAX_TILE_SIDE * 30,
  );
const MAX_TILE_TEXT = 2 * MASK_TILE_PIXELS * MASK_TILE_PIXELS;
/** Tiles are read pixel by pixel where they are used; here it is enough that they are runs and lie on the mask. */
const isTileTable = (v: unknown): boolean =>
  typeof v === 'object' &&
  v !== null &&
  !Array.isArray(v) &&
  Object.entries(v).every(
    ([tile, text]) =>
      /^\d{1,2}-\d{1,2}$/.test(tile) &&
      typeof text === 'string' &&
      text.length <= MAX_TILE_TEXT &&
      /^(\d{1,5}( \d{1,5})*)?$/.test(text),
  );
const hasOwnIds = (knots: unknown): boolean =>
  !Array.isArray(knots) ||
  new Set(knots.map((knot: { readonly id?: unknown } | null) => knot?.id)).size === knots.length;
const PATCHED_KINDS = kindsWith('local');

/** An added thing must be whole, a changed one holds field by field, a hidden one says nothing. */
function holdsPatch({ kind, target, change, fields }: Patch): boolean {
  if (!PATCHED_KINDS.includes(kind) || typeof fields !== 'object' || fields === null) return false;
  if (change === 'hidden') return Object.keys(fields).length === 0;
  const schema = ITEM_SCHEMAS[kind];
  if (change === 'added') return fields['id'] === target && schema.isValidSync(fields, { strict: true });
  return Object.entries(fields).every(([field, value]) => {
    const one = Object.hasOwn(schema.fields, field) && field !== 'id' ? (schema.fields[field] as Schema) : undefined;
    return (
      one?.isValidSync(value === null && isOptionalField(kind, field) ? undefined : value, {
        strict: true,
      }) === true
    );
  });
}

const TARGET_ID = id();
const USE_PATCH_FIELDS = ['kind', 'change', 'fields', 'was'];

function isUsePatchTable(table: unknown): boolean {
  if (table === null || table === undefined) return true;
  if (typeof table !== 'object' || Array.isArray(table)) return false;
  return Object.entries(table).every(([target, one]) => {
    const patch = one as Patch | null;
    const isWhole =
      typeof patch === 'object' &&
      patch !== null &&
      USE_PATCH_FIELDS.every((field) => Object.hasOwn(patch, field)) &&
      Object.keys(patch).length === USE_PATCH_FIELDS.length;
    return (
      TARGET_ID.isValidSync(target) &&
      isWhole &&
      PATCH_CHANGES.includes(patch.change) &&
      holdsPatch({ ...patch, target })
    );
  });
}

/** Validation of what stands in strata. Strict: nothing unknown, nothing coerced. */
export const ITEM_SCHEMAS: Readonly<Record<ItemKind, AnyObjectSchema>> = {
  block: shape({
    id: id(),
    name: string().defined().max(200),
    position: vector(),
    turn: turn(),
    planes: array()
      .of(tuple([finite(-1e6, 1e6), finite(-1e6, 1e6), finite(-1e6, 1e6), finite(-1e9, 1e9)]).required())
      .required()
      .min(4)
      .max(MAX_BLOCK_PLANES),
    sight: string().required().oneOf(BLOCK_SIGHTS),
    material: name(),
    faces: later(
      array()
        .of(
          shape({
            plane: whole(0, MAX_BLOCK_PLANES - 1),
            surface: name(),
            tileMetres: tuple([finite(0.001, 1e5), finite(0.001, 1e5)]).required(),
            offsetMetres: planPoint(),
          }),
        )
        .max(MAX_BLOCK_PLANES),
    ),
    group: groupOf(),
  }),
  placement: shape({
    id: id(),
    piece: id(),
    position: vector(),
    turn: turn(),
    scale: scale(),
    group: groupOf(),
    values: ownValues(),
  }),
  marker: shape({
    id: id(),
    kind: string().required().oneOf(MARKER_KINDS),
    position: vector(),
    turn: finite(-36000, 36000),
    entry: later(string().max(80)),
    values: ownValues(),
    group: groupOf(),
  }),
  volume: shape({
    id: id(),
    name: string().defined().max(200),
    kind: string().defined().max(80),
    position: vector(),
    turn: turn(),
    shape: volumeShape(),
    values: ownValues(),
    group: groupOf(),
  }),
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
      .of(
        shape({
          id: id(),
          position: vector(),
          widthMetres: finite(0, 10000),
          tags: array().of(name()).required().max(50),
          handle: orNull(vector()),
        }),
      )
      .required()
      .min(2)
      .max(MAX_PATH_KNOTS)
      .test('knot-ids', 'knots must have an id each', (knots) => hasOwnIds(knots)),
    group: groupOf(),
  }),
  tileFloor: shape({
    id: id(),
    name: string().defined().max(200),
    position: vector(),
    squareMetres: finite(0.01, 1000),
    columns: whole(1, MAX_TILE_SIDE),
    rows: whole(1, MAX_TILE_SIDE),
    squares: mixed<Record<string, unknown>>()
      .required()
      .meta({ jsonSchema: { type: 'object', additionalProperties: { type: 'string' } } })
      .test('rows', 'must be rows of squares by their numbers from 0', isRowTable),
    group: groupOf(),
  }),
  mask: shape({
    id: id(),
    name: string().defined().max(200),
    position: vector(),
    pixelsPerMetre: finite(0.001, 1000),
    columns: whole(1, MAX_MASK_SIDE),
    rows: whole(1, MAX_MASK_SIDE),
    tiles: mixed<Record<string, unknown>>()
      .required()
      .meta({ jsonSchema: { type: 'object', additionalProperties: { type: 'string' } } })
      .test('tiles', 'must be runs of pixels by their tiles', isTileTable),
    group: groupOf(),
  }),
  assembly: shape({
    id: id(),
    assembly: id(),
    position: vector(),
    turn: finite(-36000, 36000),
    patches: mixed<Record<string, unknown>>()
      .nullable()
      .optional()
      .default(undefined)
      .meta({ jsonSchema: { type: ['object', 'null'] } })
      .test('use-patches', 'what a use has otherwise must be as the thing itself could be', isUsePatchTable),
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
    aside: shape({ reason: string().required().min(1).max(2000), since: day() })
      .nullable()
      .defined()
      .default(undefined),
  }),
  patch: shape({
    id: patchIdText(),
    level: id(),
    kind: string().required().oneOf(PATCHED_KINDS),
    target: id(),
    change: string().required().oneOf(PATCH_CHANGES),
    fields: jsonTable(),
    was: jsonTable(),
  })
    .test(
      'patch-id',
      'a patch must be named after its thing and its level',
      (patch) =>
        (patch as unknown as Patch).id ===
        patchId((patch as unknown as Patch).level, (patch as unknown as Patch).target),
    )
    .test('patch-fields', 'what a patch changes must be as the thing itself could be', (patch) =>
      holdsPatch(patch as unknown as Patch),
    ),
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
  divider: shape({
    id: id(),
    from: planPoint(),
    to: planPoint(),
    bottom: coordinate(),
    top: coordinate(),
    group: groupOf(),
  }),
};
