import type { Spot } from './kinds';
import type { House } from './program';

/** So many equal lines in a row are a copy. */
const RUN = 6;

/** Steps of the database are never changed once released: what they share with what came later is no copy to be merged. */
const FROZEN = /\/migrations\//;

/** Runs of lines that stand in two places. Imports, comments and lone punctuation do not count. */
export function duplicates({ sources, pathOf }: House): Spot[] {
  const seen = new Map<string, string>();
  const spots: Spot[] = [];
  for (const source of sources) {
    const path = pathOf(source);
    if (FROZEN.test(path)) continue;
    const lines = source.text.split('\n').flatMap((text, i) => {
      const line = text.trim().replace(/\s+/g, ' ');
      return line.length < 4 || /^(import|export \{|\/\/|\/?\*|\} from|type |[A-Za-z0-9_]+,$)/.test(line)
        ? []
        : [{ line, at: i + 1 }];
    });
    let skip = 0;
    for (let i = 0; i + RUN <= lines.length; i++) {
      const run = lines
        .slice(i, i + RUN)
        .map(({ line }) => line)
        .join('\n');
      const first = seen.get(run);
      if (first === undefined) seen.set(run, `${path}:${lines[i].at}`);
      else if (i >= skip) {
        spots.push({ path, line: lines[i].at, what: `as ${first}` });
        skip = i + RUN;
      }
    }
  }
  return spots;
}
