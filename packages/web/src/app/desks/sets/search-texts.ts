import { plainText, type Level } from '@stravel/core';

/** Levels that are read at once; more would hold the page up. */
const LEVELS_AT_ONCE = 400;

const texts = new WeakMap<Level, string>();

/** Everything that a level can be filtered by, in small letters; read once for each state of the level. */
export function searchText(level: Level): string {
  let text = texts.get(level);
  if (text === undefined) {
    const parts = [level.name, level.code];
    for (const value of Object.values(level.values))
      if (typeof value === 'string' || Array.isArray(value)) parts.push(plainText(value));
    texts.set(level, (text = parts.join('\n').toLowerCase()));
  }
  return text;
}

/** Reads levels ahead, slice by slice, so that the first letter of a filter need not wait. @returns what ends it */
export function readAhead(levels: readonly Level[]): () => void {
  let at = 0;
  const step = (): void => {
    const end = Math.min(levels.length, at + LEVELS_AT_ONCE);
    for (; at < end; at++) searchText(levels[at]);
    if (at < levels.length) timer = setTimeout(step);
  };
  let timer = setTimeout(step);
  return () => clearTimeout(timer);
}
