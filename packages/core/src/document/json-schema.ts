import { orNullSchema, type SchemaObject } from '../json/schema-parts';
import type { EditableKind } from '../model/records';
import { SHAPES } from './record-shapes';

/** What yup tells of a schema; only what is read here. */
interface Described {
  readonly type: string;
  readonly nullable?: boolean;
  readonly optional?: boolean;
  readonly meta?: unknown;
  readonly oneOf?: readonly unknown[];
  readonly tests?: readonly { readonly name?: string; readonly params?: Readonly<Record<string, unknown>> }[];
  readonly fields?: Readonly<Record<string, Described>>;
  readonly innerType?: Described | readonly Described[];
}

/** The JSON Schema (draft 2020-12) of one kind of record, made from the schema that validates it. */
export function recordJsonSchema(kind: EditableKind): SchemaObject {
  return convert(SHAPES[kind].yup.describe() as unknown as Described);
}

function convert(described: Described): SchemaObject {
  const schema = core(described);
  return described.nullable ? orNullSchema(schema) : schema;
}

function core(described: Described): SchemaObject {
  const meta = described.meta as { jsonSchema?: SchemaObject; anyOf?: readonly Described[] } | undefined;
  if (meta?.jsonSchema) return meta.jsonSchema;
  if (meta?.anyOf) return { anyOf: meta.anyOf.map(convert) };
  const limits = testParameters(described);
  switch (described.type) {
    case 'object': {
      const fields = described.fields ?? {};
      const properties = Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, convert(field)]));
      return {
        type: 'object',
        properties,
        required: Object.keys(fields).filter((key) => !fields[key].optional),
        additionalProperties: false,
      };
    }
    case 'tuple': {
      const items = (described.innerType as readonly Described[]).map(convert);
      return { type: 'array', prefixItems: items, items: false, minItems: items.length };
    }
    case 'array':
      return {
        type: 'array',
        items: convert(described.innerType as Described),
        ...pick(limits, { min: 'minItems', max: 'maxItems' }),
      };
    case 'number':
      return {
        type: limits.has('integer') ? 'integer' : 'number',
        ...pick(limits, { min: 'minimum', max: 'maximum' }),
      };
    case 'string': {
      const oneOf = described.oneOf ?? [];
      if (oneOf.length > 0) return { type: 'string', enum: oneOf.filter((v): v is string => typeof v === 'string') };
      const pattern = limits.get('matches');
      return {
        type: 'string',
        ...pick(limits, { min: 'minLength', max: 'maxLength' }),
        ...(pattern instanceof RegExp ? { pattern: pattern.source } : {}),
      };
    }
    case 'boolean':
      return { type: 'boolean' };
    default:
      return {};
  }
}

function testParameters(described: Described): Map<string, unknown> {
  const map = new Map<string, unknown>();
  for (const test of described.tests ?? []) {
    const p = test.params ?? {};
    if (test.name) map.set(test.name, p['min'] ?? p['max'] ?? p['regex'] ?? true);
  }
  return map;
}

function pick(limits: Map<string, unknown>, names: Record<string, string>): SchemaObject {
  const out: SchemaObject = {};
  for (const [from, to] of Object.entries(names)) {
    const value = limits.get(from);
    if (typeof value === 'number') out[to] = value;
  }
  return out;
}
