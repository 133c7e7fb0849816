/** Anything that may have a place among its like. */
export interface Ordered {
  readonly id: string;
  /** Sort key; without one it comes before those that have one. */
  readonly order?: string | null;
}

/** By order, then by id. Compares code units, the same everywhere. */
export function compareOrdered(a: Ordered, b: Ordered): number {
  const [first, second] = [a.order ?? '', b.order ?? ''];
  if (first !== second) return first < second ? -1 : 1;
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}
