import type { CodePattern } from '../model/code-pattern';
import type { RecordTables } from '../model/records';

/** How many codes a pattern gives; Infinity when they are too many for a number. */
export function codeCount({ alphabet, length }: CodePattern): number {
  let count = 1;
  for (let i = 0; i < length; i++) count *= [...alphabet].length;
  return count;
}

/**
 * Codes that no level uses, without regard to case, and that differ from one another.
 * @param below gives a uniform whole number under its argument
 * @returns fewer than `count` when the pattern has no more
 */
export function freeCodes(
  tables: Pick<RecordTables, 'level'>,
  pattern: CodePattern,
  count: number,
  below: (limit: number) => number,
): string[] {
  const used = new Set(Object.values(tables.level).map((level) => level.code.toUpperCase()));
  const letters = [...pattern.alphabet];
  const free: string[] = [];
  const draw = (): string => Array.from({ length: pattern.length }, () => letters[below(letters.length)]).join('');
  const take = (code: string): void => {
    if (used.has(code.toUpperCase())) return;
    used.add(code.toUpperCase());
    free.push(code);
  };
  // By chance while most codes are free; then through them all, so that the last one is found too.
  for (let tries = 0; free.length < count && tries < 20 * count + 100; tries++) take(draw());
  const all = codeCount(pattern);
  if (all <= 1e6) for (let at = 0; free.length < count && at < all; at++) take(codeAt(letters, pattern.length, at));
  return free;
}

function codeAt(letters: readonly string[], length: number, at: number): string {
  let code = '';
  for (let i = 0, rest = at; i < length; i++, rest = Math.floor(rest / letters.length))
    code += letters[rest % letters.length];
  return code;
}
