import { recordJsonSchema } from '../document/json-schema';
import { ITEM_KINDS } from '../items';
import { OPTIONAL_PACKED } from '../items/packed-form';
import { packedFormOf } from '../items/stored';
import {
  COUNT_SCHEMA,
  FLAG_SCHEMA,
  NUMBER_SCHEMA,
  QUATERNION_SCHEMA,
  SHA256_SCHEMA,
  TEXT_SCHEMA,
  VECTOR_SCHEMA,
  closedTable,
  listOf,
  numbersSchema,
  orNullSchema,
  schemaHead,
  type SchemaObject,
} from '../json/schema-parts';
import { isJsonTable, type Json } from '../model/json';
import { COLLISION_SHAPES } from '../model/kit';
import { packHead, type PackFormat } from '../model/pack-format';
import type { EditableKind } from '../model/records';
import { MESH_FILES } from '../model/target';
import { COLUMN_TYPES } from '../layout/placed-columns/columns-layout';

const BOX = closedTable({ min: VECTOR_SCHEMA, max: VECTOR_SCHEMA });
const GROUP = { group: TEXT_SCHEMA };
const PLANES = listOf(numbersSchema(4));
const PLAN_POINT = numbersSchema(2);

/** The JSON Schemas (draft 2020-12) of a pack's files, by the name of the file that publishes them. */
export function packSchemas(): Readonly<Record<string, SchemaObject>> {
  return {
    'pack-manifest.schema.json': file('The manifest of a pack', 'stravel-pack', {
      target: closedTable({ id: TEXT_SCHEMA, name: TEXT_SCHEMA, meshFiles: { enum: [...MESH_FILES] } }),
      units: closedTable({ length: { const: 'metre' }, up: { const: '+Y' } }),
      collection: closedTable({ id: TEXT_SCHEMA, name: TEXT_SCHEMA }),
      edit: COUNT_SCHEMA,
      game: TEXT_SCHEMA,
      levels: listOf(TEXT_SCHEMA),
      kits: listOf(TEXT_SCHEMA),
      stale: listOf(TEXT_SCHEMA),
      files: listOf(closedTable({ path: TEXT_SCHEMA, bytes: COUNT_SCHEMA, sha256: SHA256_SCHEMA })),
    }),
    'pack-game.schema.json': file('What the levels of a pack refer to', 'stravel-pack-game', gameParts()),
    'pack-level.schema.json': levelSchema(),
    'pack-sight.schema.json': file('What is seen from where', 'stravel-pack-sight', {
      bounds: BOX,
      objects: listOf(TEXT_SCHEMA),
      pockets: listOf(
        closedTable({
          reached: FLAG_SCHEMA,
          planes: PLANES,
          bounds: BOX,
          visible: listOf(COUNT_SCHEMA),
          objects: listOf(COUNT_SCHEMA),
        }),
      ),
    }),
    'pack-cells.schema.json': file(
      'The grid of a level that is cut',
      'stravel-pack-cells',
      {
        sizeMetres: NUMBER_SCHEMA,
        origin: PLAN_POINT,
        loadMetres: NUMBER_SCHEMA,
        dropMetres: NUMBER_SCHEMA,
        readyMetres: NUMBER_SCHEMA,
        cells: listOf(
          closedTable({
            cell: TEXT_SCHEMA,
            min: PLAN_POINT,
            max: PLAN_POINT,
            memoryBytes: COUNT_SCHEMA,
            triangles: COUNT_SCHEMA,
          }),
        ),
      },
      { volumes: listOf(closedTable({ volume: TEXT_SCHEMA, cells: listOf(TEXT_SCHEMA) })) },
    ),
    'pack-kit.schema.json': kitSchema(),
  };
}

function gameParts(): SchemaObject {
  const { rules, gains, resets } = storedFields('levelOrder');
  const { purpose } = storedFields('level');
  const carried = storedFields('carriedValue');
  const field = storedFields('field');
  const { legend, movement } = storedFields('collection');
  return {
    ranks: listOf(TEXT_SCHEMA),
    sets: listOf(closedTable({ id: TEXT_SCHEMA, name: TEXT_SCHEMA, parent: orNullSchema(TEXT_SCHEMA) })),
    levels: listOf(
      closedTable({
        id: TEXT_SCHEMA,
        key: TEXT_SCHEMA,
        name: TEXT_SCHEMA,
        set: TEXT_SCHEMA,
        purpose,
        code: TEXT_SCHEMA,
        file: orNullSchema(TEXT_SCHEMA),
        rules,
        gains,
        resets,
      }),
    ),
    carriedValues: listOf(
      closedTable({ id: TEXT_SCHEMA, name: TEXT_SCHEMA, start: carried['start'], counts: carried['counts'] }),
    ),
    fields: listOf(
      closedTable({
        id: TEXT_SCHEMA,
        key: TEXT_SCHEMA,
        name: TEXT_SCHEMA,
        type: field['type'],
        choices: field['choices'],
        of: orNullSchema(TEXT_SCHEMA),
        list: FLAG_SCHEMA,
        target: orNullSchema(TEXT_SCHEMA),
      }),
    ),
    registers: listOf(
      closedTable({
        id: TEXT_SCHEMA,
        name: TEXT_SCHEMA,
        kindsOf: storedFields('register')['kindsOf'],
        entries: listOf(closedTable({ id: TEXT_SCHEMA, name: TEXT_SCHEMA, values: storedFields('entry')['values'] })),
      }),
    ),
    assemblies: listOf(closedTable({ id: TEXT_SCHEMA, name: TEXT_SCHEMA })),
    squareCodes: legend,
    movement,
    pictures: { type: 'object', additionalProperties: TEXT_SCHEMA },
  };
}

function levelSchema(): SchemaObject {
  const { purpose, values } = storedFields('level');
  const marker = storedFields('marker');
  const placement = storedFields('placement');
  const block = closedTable(
    {
      id: TEXT_SCHEMA,
      name: TEXT_SCHEMA,
      material: TEXT_SCHEMA,
      blocksView: FLAG_SCHEMA,
      triangles: listOf(
        closedTable({
          material: TEXT_SCHEMA,
          primitive: COUNT_SCHEMA,
          firstIndex: COUNT_SCHEMA,
          indexCount: COUNT_SCHEMA,
        }),
      ),
      planes: PLANES,
    },
    {
      faces: listOf(
        closedTable({ plane: COUNT_SCHEMA, material: TEXT_SCHEMA, tileMetres: PLAN_POINT, offsetMetres: PLAN_POINT }),
      ),
      ...GROUP,
    },
  );
  const placed = closedTable(
    {
      id: TEXT_SCHEMA,
      piece: TEXT_SCHEMA,
      translation: VECTOR_SCHEMA,
      rotation: QUATERNION_SCHEMA,
      scale: placement['scale'],
    },
    { values: placement['values'], ...GROUP },
  );
  return file(
    'A level of a pack',
    'stravel-pack-level',
    {
      id: TEXT_SCHEMA,
      key: TEXT_SCHEMA,
      name: TEXT_SCHEMA,
      number: orNullSchema({ type: 'integer', minimum: 1 }),
      sets: listOf(TEXT_SCHEMA),
      purpose,
      code: TEXT_SCHEMA,
      values,
      openSky: FLAG_SCHEMA,
      markers: listOf(
        closedTable(
          { id: TEXT_SCHEMA, kind: TEXT_SCHEMA, translation: VECTOR_SCHEMA, rotation: QUATERNION_SCHEMA },
          { entry: marker['entry'], values: marker['values'], ...GROUP },
        ),
      ),
      chunks: listOf(
        closedTable(
          {
            cell: orNullSchema(TEXT_SCHEMA),
            geometry: orNullSchema(TEXT_SCHEMA),
            kits: listOf(TEXT_SCHEMA),
            meshes: listOf(TEXT_SCHEMA),
            blocks: listOf(block),
          },
          { placements: listOf(placed), columns: columnsSchema(placement['values']) },
        ),
      ),
      sight: TEXT_SCHEMA,
      cells: orNullSchema(TEXT_SCHEMA),
    },
    {
      masks: listOf(
        closedTable(
          {
            id: TEXT_SCHEMA,
            name: TEXT_SCHEMA,
            position: VECTOR_SCHEMA,
            pixelsPerMetre: NUMBER_SCHEMA,
            picture: TEXT_SCHEMA,
          },
          GROUP,
        ),
      ),
      ...itemLists(),
    },
  );
}

/** What a chunk tells of its file of columns. @param values schema of a placement's own */
function columnsSchema(values: Json): SchemaObject {
  const run = { type: { enum: Object.keys(COLUMN_TYPES) }, offset: COUNT_SCHEMA, count: COUNT_SCHEMA };
  return closedTable(
    {
      file: TEXT_SCHEMA,
      placements: COUNT_SCHEMA,
      withinMetres: NUMBER_SCHEMA,
      pieces: listOf(TEXT_SCHEMA),
      table: listOf(
        closedTable(
          { name: TEXT_SCHEMA },
          { ...run, value: NUMBER_SCHEMA, index: closedTable(run), perMetre: COUNT_SCHEMA, from: { type: 'integer' } },
        ),
      ),
    },
    { groups: listOf(TEXT_SCHEMA), values: listOf(closedTable({ placement: COUNT_SCHEMA, values })) },
  );
}

/** The lists of items that are packed in a form of their kind. */
function itemLists(): SchemaObject {
  const lists: SchemaObject = {};
  for (const kind of ITEM_KINDS) {
    const form = packedFormOf(kind);
    if (!form) continue;
    const told = Object.entries(form.told(storedFields(kind)));
    const isOptional = ([key]: readonly [string, Json]): boolean => OPTIONAL_PACKED.includes(key);
    lists[form.list] = listOf(
      closedTable(Object.fromEntries(told.filter((one) => !isOptional(one))), {
        ...Object.fromEntries(told.filter(isOptional)),
        ...GROUP,
      }),
    );
  }
  return lists;
}

function kitSchema(): SchemaObject {
  const step = closedTable({
    node: TEXT_SCHEMA,
    fromMetres: NUMBER_SCHEMA,
    deviationMetres: NUMBER_SCHEMA,
    triangles: COUNT_SCHEMA,
    vertices: COUNT_SCHEMA,
    materials: COUNT_SCHEMA,
    bytes: COUNT_SCHEMA,
  });
  const collision = closedTable({
    shape: { enum: [...COLLISION_SHAPES] },
    node: orNullSchema(TEXT_SCHEMA),
    triangles: COUNT_SCHEMA,
    vertices: COUNT_SCHEMA,
    bytes: COUNT_SCHEMA,
    outsideMetres: NUMBER_SCHEMA,
  });
  return file('The pieces of a kit', 'stravel-pack-kit', {
    id: TEXT_SCHEMA,
    key: TEXT_SCHEMA,
    name: TEXT_SCHEMA,
    view: closedTable({
      fieldOfViewDegrees: NUMBER_SCHEMA,
      pictureHeightPixels: NUMBER_SCHEMA,
      errorPixels: NUMBER_SCHEMA,
    }),
    pieces: listOf(
      closedTable(
        { id: TEXT_SCHEMA, name: TEXT_SCHEMA, meshes: TEXT_SCHEMA, bounds: BOX, steps: listOf(step) },
        { collision },
      ),
    ),
  });
}

function file(title: string, format: PackFormat, parts: SchemaObject, optional: SchemaObject = {}): SchemaObject {
  return {
    ...schemaHead(title),
    ...closedTable({ ...constants(packHead(format)), ...parts }, optional),
  };
}

/** Keys that hold these values and no others. */
function constants(values: Readonly<Record<string, Json>>): SchemaObject {
  return Object.fromEntries(Object.entries(values).map(([key, value]) => [key, { const: value }]));
}

/** Schemas of the fields of a kind as they are kept. */
function storedFields(kind: EditableKind): SchemaObject {
  const { properties } = recordJsonSchema(kind);
  return isJsonTable(properties) ? { ...properties } : {};
}
