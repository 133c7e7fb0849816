/** Most lists and tables within each other, in files and in requests. */
export const MAX_JSON_DEPTH = 64;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const OPEN_LIST = 0x5b;
const CLOSE_LIST = 0x5d;
const OPEN_TABLE = 0x7b;
const CLOSE_TABLE = 0x7d;

/** Text is looked through in stretches of so many letters. */
const STRETCH_LETTERS = 65536;

/**
 * Whether JSON nests deeper than MAX_JSON_DEPTH; told from the text alone, before anything is read, as readers that call themselves
 * end at some thousands. Cost: O(n).
 * @param json text, or its bytes in UTF-8; what is no JSON is judged as far as its brackets go
 */
export function isTooDeep(json: string | Uint8Array): boolean {
  const brackets = new Brackets();
  if (typeof json !== 'string') return brackets.goTooDeep(json);
  // Brackets, quotes and backslashes are one byte each, wherever the text is cut.
  const encoder = new TextEncoder();
  for (let start = 0; start < json.length; start += STRETCH_LETTERS)
    if (brackets.goTooDeep(encoder.encode(json.slice(start, start + STRETCH_LETTERS)))) return true;
  return false;
}

/** Where one is in a text, from one stretch of it to the next. */
class Brackets {
  private depth = 0;
  private inText = false;
  private isEscaped = false;

  /** Whether a stretch goes too deep. */
  goTooDeep(bytes: Uint8Array): boolean {
    let { depth, inText, isEscaped } = this;
    for (let i = 0; i < bytes.length; i++) {
      const code = bytes[i];
      if (inText) {
        if (isEscaped) isEscaped = false;
        else if (code === BACKSLASH) isEscaped = true;
        else if (code === QUOTE) inText = false;
      } else if (code === QUOTE) inText = true;
      else if (code === OPEN_LIST || code === OPEN_TABLE) {
        depth++;
        if (depth > MAX_JSON_DEPTH) return true;
      } else if (code === CLOSE_LIST || code === CLOSE_TABLE) depth--;
    }
    Object.assign(this, { depth, inText, isEscaped });
    return false;
  }
}
