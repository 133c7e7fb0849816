/** Stands in a pattern for anything. */
const ANY = '*';

/** Whether a name is as a pattern has it: `*` stands for anything, case for nothing. Takes time as long as the name at most as often as there are stars. */
export function matchesName(pattern: string, name: string): boolean {
  const [first, ...rest] = pattern.toLowerCase().split(ANY);
  const text = name.toLowerCase();
  if (rest.length === 0) return text === first;
  if (!text.startsWith(first)) return false;
  const last = rest.pop() ?? '';
  let from = first.length;
  for (const part of rest) {
    const at = text.indexOf(part, from);
    if (at < 0) return false;
    from = at + part.length;
  }
  return text.length - last.length >= from && text.endsWith(last);
}
