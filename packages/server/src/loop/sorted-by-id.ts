import type { Stretches } from './stretches';

/** So many are sorted, or merged, without a rest. */
const SORTED_AT_ONCE = 8192;

/** Records in order of id, sorted in stretches. Takes records with different ids. */
export async function sortedById<T extends { readonly id?: unknown }>(
  records: Iterable<T>,
  stretches: Stretches,
  atOnce = SORTED_AT_ONCE,
): Promise<T[]> {
  const all = [...records];
  let runs: T[][] = [];
  for (let start = 0; start < all.length; start += atOnce) {
    runs.push(all.slice(start, start + atOnce).sort((a, b) => (idOf(a) < idOf(b) ? -1 : 1)));
    await stretches.rest();
  }
  while (runs.length > 1) {
    const merged: T[][] = [];
    for (let i = 0; i < runs.length; i += 2)
      merged.push(i + 1 < runs.length ? await merge(runs[i], runs[i + 1], stretches) : runs[i]);
    runs = merged;
  }
  return runs.at(0) ?? [];
}

async function merge<T extends { readonly id?: unknown }>(
  one: readonly T[],
  other: readonly T[],
  stretches: Stretches,
): Promise<T[]> {
  const [last, first] = [one.at(-1), other.at(0)];
  // Most documents lie in order already.
  if (!last || !first || idOf(last) < idOf(first)) return [...one, ...other];
  const out: T[] = [];
  let [i, j] = [0, 0];
  while (i < one.length || j < other.length) {
    if (j >= other.length || (i < one.length && idOf(one[i]) < idOf(other[j]))) out.push(one[i++]);
    else out.push(other[j++]);
    if (out.length % SORTED_AT_ONCE === 0) await stretches.rest();
  }
  return out;
}

function idOf(record: { readonly id?: unknown }): string {
  return record.id as string;
}
