import type { Knot } from '../../model/level-path';

/** A knot that may not have its id yet. */
export type NewKnot = Omit<Knot, 'id'> & { readonly id?: string };

/**
 * Gives every knot an id that no other has. The first with an id keeps it; others get the lowest that is free, `k0` and so on. Cost: O(knots).
 */
export function withKnotIds(knots: readonly NewKnot[]): Knot[] {
  const taken = new Set<string>();
  const kept = knots.map(({ id }) => {
    if (id === undefined || taken.has(id)) return undefined;
    taken.add(id);
    return id;
  });
  let next = 0;
  return knots.map((knot, i) => {
    let id = kept[i];
    if (id === undefined) {
      while (taken.has(`k${next}`)) next++;
      id = `k${next++}`;
    }
    return { ...knot, id };
  });
}
