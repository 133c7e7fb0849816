import { CoreError } from '../errors';
import type { Json } from '../model/json';
import { MAX_JSON_DEPTH, isTooDeep } from './json-depth';
import { plainZeros } from './plain-zeros';

/**
 * JSON text in canonical order: keys sorted by code unit, shortest numbers that read back exactly, two spaces of
 * indent, arrays of plain numbers on one line, a newline at the end. Equal values give equal bytes.
 * @throws CoreError 'JSON_NUMBER' at NaN or an infinity, naming the path
 */
export function canonicalJson(value: Json): string {
  return `${write(value, '', '$')}\n`;
}

function write(value: Json, indent: string, path: string): string {
  if (value === null || typeof value === 'boolean') return String(value);
  if (typeof value === 'string') return JSON.stringify(value);
  if (typeof value === 'number') {
    if (!Number.isFinite(value)) throw new CoreError('JSON_NUMBER', `json: ${path} must be finite, is ${value}`);
    return JSON.stringify(value + 0);
  }
  const deeper = `${indent}  `;
  if (Array.isArray(value)) {
    if (value.length === 0) return '[]';
    const parts = value.map((entry: Json, i) => write(entry, deeper, `${path}[${i}]`));
    if (value.every((entry) => typeof entry === 'number')) return `[${parts.join(', ')}]`;
    return `[\n${parts.map((part) => deeper + part).join(',\n')}\n${indent}]`;
  }
  const record = value as { readonly [key: string]: Json };
  const keys = Object.keys(record).sort();
  if (keys.length === 0) return '{}';
  const lines = keys.map((key) => `${deeper}${JSON.stringify(key)}: ${write(record[key], deeper, `${path}.${key}`)}`);
  return `{\n${lines.join(',\n')}\n${indent}}`;
}

/** `JSON.parse`, which gives nothing but Json. @throws SyntaxError */
export const jsonOfText: (text: string) => Json = JSON.parse;

/**
 * Reads JSON text.
 * @param name what is read, for the message @throws CoreError 'JSON_UNREADABLE' naming it and the place, 'JSON_TOO_DEEP'
 */
export function parseJson(text: string, name: string): Json {
  if (isTooDeep(text))
    throw new CoreError('JSON_TOO_DEEP', `${name}: nests lists and tables deeper than ${MAX_JSON_DEPTH}`, { name });
  try {
    const json = jsonOfText(text);
    return text.includes('-0') ? plainZeros(json) : json;
  } catch (error) {
    throw new CoreError(
      'JSON_UNREADABLE',
      `${name}: is not JSON, ${(error as Error).message}`,
      { name },
      { cause: error },
    );
  }
}
