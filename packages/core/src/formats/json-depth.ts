/** Most lists and tables within each other, in files and in requests. */
export const MAX_JSON_DEPTH = 64;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const OPEN_LIST = 0x5b;
const CLOSE_LIST = 0x5d;
const OPEN_TABLE = 0x7b;
const CLOSE_TABLE = 0x7d;

/**
 * Whether JSON nests deeper than MAX_JSON_DEPTH; told from the text alone, before anything is read, as readers that call themselves
 * end at some thousands. Cost: O(n).
 * @param json text, or its bytes in UTF-8; what is no JSON is judged as far as its brackets go
 */
export function isTooDeep(json: string | Uint8Array): boolean {
  const codeAt = typeof json === 'string' ? (i: number): number => json.charCodeAt(i) : (i: number): number => json[i];
  let depth = 0;
  let inText = false;
  for (let i = 0; i < json.length; i++) {
    const code = codeAt(i);
    if (inText) {
      if (code === BACKSLASH) i++;
      else if (code === QUOTE) inText = false;
    } else if (code === QUOTE) inText = true;
    else if (code === OPEN_LIST || code === OPEN_TABLE) {
      depth++;
      if (depth > MAX_JSON_DEPTH) return true;
    } else if (code === CLOSE_LIST || code === CLOSE_TABLE) depth--;
  }
  return false;
}
