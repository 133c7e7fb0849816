/**
 * How well a name answers what was typed; 0 not at all. Best at its start, then at the start of a word, then inside, then
 * with its letters in order.
 */
export function matchQuality(name: string, wanted: string): number {
  if (wanted === '') return 1;
  const at = name.indexOf(wanted);
  if (at === 0) return 4;
  if (at > 0) return /[\s'-]/.test(name[at - 1]) ? 3 : 2;
  let from = 0;
  for (const letter of wanted) {
    from = name.indexOf(letter, from) + 1;
    if (from === 0) return 0;
  }
  return 1;
}
