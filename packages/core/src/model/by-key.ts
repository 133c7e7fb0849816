/** A table with a value for each key, in their order. */
export function byKey<K extends string, V>(keys: readonly K[], of: (key: K) => V): Record<K, V> {
  // Each key is given its value; the compiler does not count them.
  return Object.fromEntries(keys.map((key) => [key, of(key)])) as Record<K, V>;
}

/** The same table with each value made into another. */
export function mapped<K extends string, V, W>(table: Readonly<Record<K, V>>, of: (value: V) => W): Record<K, W> {
  return byKey(Object.keys(table) as K[], (key) => of(table[key]));
}

/** A table whose values differ in type from key to key. @param fill puts the value of a key into it */
export function filledTable<M extends object>(
  keys: readonly (keyof M)[],
  fill: (table: Partial<M>, key: keyof M) => void,
): M {
  const table: Partial<M> = {};
  for (const key of keys) fill(table, key);
  if (!isWhole(table, keys)) throw new Error('a table was not filled');
  return table;
}

function isWhole<M extends object>(table: Partial<M>, keys: readonly (keyof M)[]): table is M {
  return keys.every((key) => Object.hasOwn(table, key));
}

/** What a table has under a key that comes from outside, undefined where it has none. */
export function heldAt<V>(table: Readonly<Record<string, V>>, key: string): V | undefined {
  return Object.hasOwn(table, key) ? table[key] : undefined;
}
