import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  KIT_FORMAT,
  LEVEL_FORMAT,
  STRATUM_FORMAT,
  TABLE_FORMAT,
  TABLE_PATHS,
} from './archive-files';
import {
  COUNT_SCHEMA,
  SHA256_SCHEMA,
  TEXT_SCHEMA,
  closedTable as closed,
  listOf as list,
  schemaHead as head,
  type SchemaObject,
} from '../json/schema-parts';
import { ITEM_KINDS } from '../items';
import { MODEL_VERSION } from '../upgrades';
import { recordJsonSchema } from '../document/json-schema';

/** The JSON Schemas (draft 2020-12) of an archive's files, by the name of the file that publishes them. */
export function fileSchemas(): Readonly<Record<string, SchemaObject>> {
  return {
    'index.schema.json': file('The index of an archive', ARCHIVE_FORMAT, {
      files: list(
        closed({
          path: TEXT_SCHEMA,
          bytes: COUNT_SCHEMA,
          sha256: SHA256_SCHEMA,
        }),
      ),
    }),
    'level.schema.json': file('A level with the strata that it owns', LEVEL_FORMAT, {
      level: recordJsonSchema('level'),
      strata: list(closed(stratumParts())),
    }),
    'stratum.schema.json': file('A shared stratum', STRATUM_FORMAT, stratumParts()),
    'kit.schema.json': file('A kit; its meshes are in the GLB beside it', KIT_FORMAT, {
      kit: recordJsonSchema('kit'),
      pieces: list(recordJsonSchema('piece')),
    }),
    'table.schema.json': {
      ...head('A table of records'),
      oneOf: [...TABLE_PATHS.keys()].map((kind) =>
        closed({ ...format(TABLE_FORMAT), kind: { const: kind }, rows: list(recordJsonSchema(kind)) }),
      ),
    },
  };
}

function stratumParts(): SchemaObject {
  return {
    stratum: recordJsonSchema('stratum'),
    content: closed(Object.fromEntries(ITEM_KINDS.map((kind) => [kind, list(recordJsonSchema(kind))]))),
  };
}

function file(title: string, name: string, parts: SchemaObject): SchemaObject {
  return { ...head(title), ...closed({ ...format(name), ...parts }) };
}

function format(name: string): SchemaObject {
  return { format: { const: name }, version: { const: ARCHIVE_VERSION }, model: { const: MODEL_VERSION } };
}
