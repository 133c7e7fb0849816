import { errorText } from '../errors';

/** A compiled pattern. */
export interface CompiledPattern {
  /** Whether a text matches as a whole, in time linear in the text. */
  matches(text: string): boolean;
}

/** What compiles patterns. @throws Error that says why a pattern is none */
export type PatternEngine = (pattern: string) => CompiledPattern;

/** An engine is large: whoever starts threads or a server installs it first, a page once there is something to check. */
let engine: PatternEngine | undefined;
const compiled = new Map<string, CompiledPattern | string>();
const MAX_KEPT = 200;

export function installPatternEngine(one: PatternEngine): void {
  engine = one;
}

/** The pattern compiled, or why it is none. Few patterns are used again and again. */
function compile(pattern: string): CompiledPattern | string {
  if (!engine) return 'patterns can’t be checked yet; try again in a moment';
  let found = compiled.get(pattern);
  if (found === undefined) {
    try {
      found = engine(pattern);
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
