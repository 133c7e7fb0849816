/** Check boxes of a list of which Shift takes a range: from the box that was clicked last to this one. */
export class TickRange {
  private last: string | undefined;

  /**
   * A click on a box.
   * @param list ids of the boxes in the order in which they stand
   * @param ticked ids of those that are ticked
   * @returns the ids that change with it: all between, itself included, that are not yet as it becomes
   */
  click(
    id: string,
    isRange: boolean,
    list: readonly string[],
    ticked: { readonly has: (id: string) => boolean },
  ): readonly string[] {
    const from = isRange && this.last !== undefined ? list.indexOf(this.last) : -1;
    const to = list.indexOf(id);
    this.last = id;
    if (from < 0 || to < 0) return [id];
    const isOn = ticked.has(id);
    return list.slice(Math.min(from, to), Math.max(from, to) + 1).filter((one) => ticked.has(one) === isOn);
  }
}

/** What is chosen with some of it the other way: what was in is out, what was not is in, last. */
export function flipped<T>(ids: Iterable<T>, some: Iterable<T>): Set<T> {
  const next = new Set(ids);
  for (const id of some) if (!next.delete(id)) next.add(id);
  return next;
}
