/** Sets as a forest: the parent of each member by its number, its own number at the root. */
type Forest = Int32Array | number[];

/** The root of the set that a member is of. Shortens the way for the next time. */
export function rootOf(parents: Forest, member: number): number {
  let root = member;
  while (parents[root] !== root) root = parents[root];
  while (parents[member] !== root) [parents[member], member] = [root, parents[member]];
  return root;
}

/** Makes one set of two, under the lesser root. @returns the root of both */
export function joinSets(parents: Forest, a: number, b: number): number {
  const [ra, rb] = [rootOf(parents, a), rootOf(parents, b)];
  const root = Math.min(ra, rb);
  parents[Math.max(ra, rb)] = root;
  return root;
}
