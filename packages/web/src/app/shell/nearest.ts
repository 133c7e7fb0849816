/** How alike two texts are, 0 to 1: the share of pairs of letters that they have in common (Dice's coefficient). */
export function likeness(a: string, b: string): number {
  const pairs = (text: string): string[] =>
    Array.from({ length: Math.max(0, text.length - 1) }, (_unused, i) => text.slice(i, i + 2));
  const left = pairs(a.toLowerCase());
  const right = pairs(b.toLowerCase());
  if (left.length + right.length === 0) return 0;
  const free = [...right];
  let shared = 0;
  for (const pair of left) {
    const at = free.indexOf(pair);
    if (at < 0) continue;
    free.splice(at, 1);
    shared += 1;
  }
  return (2 * shared) / (left.length + right.length);
}

/** Those most like a text, best first; what is as like stays in its order. @param textOf what each is called */
export function nearest<T>(all: readonly T[], wanted: string, textOf: (one: T) => string, count: number): T[] {
  return all
    .map((one, i) => ({ one, i, score: likeness(textOf(one), wanted) }))
    .sort((a, b) => b.score - a.score || a.i - b.i)
    .slice(0, count)
    .map(({ one }) => one);
}
