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
  try {
    return new Writer().text(value);
  } catch (error) {
    const [path, number] = (error instanceof NotFinite && notFinite(value, '$')) || [];
    if (path === undefined) throw error;
    throw new CoreError('JSON_NUMBER', `json: ${path} must be finite, is ${number}`);
  }
}

/** There is a number somewhere that JSON does not have; where is looked for only then. */
class NotFinite extends Error {}

/** The first number that is not finite, with its path; undefined where there is none. */
function notFinite(value: unknown, path: string): readonly [path: string, value: number] | undefined {
  if (typeof value === 'number') return Number.isFinite(value) ? undefined : [path, value];
  if (typeof value !== 'object' || value === null) return undefined;
  const isList = Array.isArray(value);
  for (const [key, one] of Object.entries<unknown>({ ...value })) {
    const found = notFinite(one, isList ? `${path}[${key}]` : `${path}.${key}`);
    if (found) return found;
  }
  return undefined;
}

/** Gathers the text in parts, which are joined once. */
class Writer {
  private readonly parts: string[] = [];
  /** What comes before the value of a key, by the line break and indent before the key: many tables have the same. */
  private readonly keyTexts = new Map<string, Map<string, string>>();

  text(value: Json): string {
    this.write(value, '\n');
    this.parts.push('\n');
    return this.parts.join('');
  }

  /** @param line break and indent of the line that the value stands on */
  private write(value: Json, line: string): void {
    if (typeof value === 'number') {
      if (!Number.isFinite(value)) throw new NotFinite();
      this.parts.push(String(value));
    } else if (typeof value !== 'object' || value === null) this.parts.push(JSON.stringify(value));
    else if (Array.isArray(value)) this.writeList(value, line);
    else this.writeTable(value as { readonly [key: string]: Json }, line);
  }

  private writeList(list: readonly Json[], line: string): void {
    if (list.length === 0) this.parts.push('[]');
    else if (list.every((entry) => typeof entry === 'number')) {
      if (!list.every(Number.isFinite)) throw new NotFinite();
      this.parts.push(`[${list.join(', ')}]`);
    } else {
      const deeper = `${line}  `;
      const next = `,${deeper}`;
      for (let i = 0; i < list.length; i++) {
        this.parts.push(i === 0 ? `[${deeper}` : next);
        this.write(list[i], deeper);
      }
      this.parts.push(`${line}]`);
    }
  }

  private writeTable(table: { readonly [key: string]: Json }, line: string): void {
    const keys = Object.keys(table).sort();
    if (keys.length === 0) {
      this.parts.push('{}');
      return;
    }
    const deeper = `${line}  `;
    let texts = this.keyTexts.get(deeper);
    if (!texts) this.keyTexts.set(deeper, (texts = new Map<string, string>()));
    for (let i = 0; i < keys.length; i++) {
      const key = keys[i];
      let text = texts.get(key);
      if (text === undefined) texts.set(key, (text = `${deeper}${JSON.stringify(key)}: `));
      this.parts.push(i === 0 ? '{' : ',', text);
      this.write(table[key], deeper);
    }
    this.parts.push(`${line}}`);
  }
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
