import { errorText } from '../errors';
import { RE2JS } from 're2js';

const compiled = new Map<string, RE2JS | string>();
const MAX_KEPT = 200;

/** The pattern compiled, or why it is none. Few patterns are used again and again. */
function compile(pattern: string): RE2JS | string {
  let found = compiled.get(pattern);
  if (found === undefined) {
    try {
      found = RE2JS.compile(pattern);
    } catch (error) {
      found = errorText(error);
    }
    if (compiled.size >= MAX_KEPT) compiled.clear();
    compiled.set(pattern, found);
  }
  return found;
}

/** Why a pattern is no regular expression; null when it is one. Look-around and back-references are none: they need more than linear time. */
export function patternFault(pattern: string): string | null {
  const found = compile(pattern);
  return typeof found === 'string' ? found : null;
}

/** Whether a text matches a pattern as a whole, in time linear in the text. A broken pattern matches nothing. */
export function matchesPattern(pattern: string, text: string): boolean {
  const found = compile(pattern);
  return typeof found !== 'string' && found.matches(text);
}
