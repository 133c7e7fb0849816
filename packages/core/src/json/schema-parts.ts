import type { Json } from '../model/json';

/** A JSON Schema (draft 2020-12), or a part of one. */
export type SchemaObject = { [key: string]: Json };

/** What every published schema begins with. */
export function schemaHead(title: string): SchemaObject {
  return { $schema: 'https://json-schema.org/draft/2020-12/schema', title };
}

/** A table with these keys and no others. @param optional may be missing */
export function closedTable(properties: SchemaObject, optional: SchemaObject = {}): SchemaObject {
  return {
    type: 'object',
    properties: { ...properties, ...optional },
    required: Object.keys(properties),
    additionalProperties: false,
  };
}

export function listOf(items: Json): SchemaObject {
  return { type: 'array', items };
}

export function orNullSchema(schema: SchemaObject): SchemaObject {
  return { anyOf: [schema, { type: 'null' }] };
}

/** So many numbers. */
export function numbersSchema(count: number): SchemaObject {
  return { type: 'array', items: { type: 'number' }, minItems: count, maxItems: count };
}

export const TEXT_SCHEMA: SchemaObject = { type: 'string' };
export const COUNT_SCHEMA: SchemaObject = { type: 'integer', minimum: 0 };
export const NUMBER_SCHEMA: SchemaObject = { type: 'number' };
export const FLAG_SCHEMA: SchemaObject = { type: 'boolean' };
export const SHA256_SCHEMA: SchemaObject = { type: 'string', pattern: '^[0-9a-f]{64}$' };
export const VECTOR_SCHEMA = numbersSchema(3);
export const QUATERNION_SCHEMA = numbersSchema(4);
