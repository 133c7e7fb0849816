import type { Group } from '../model/group';
import { contentOfKinds, listOf, specOf } from '../items';
import type { StratumContent } from '../model/items';

/** A group with what stands in it. */
export interface GroupNode {
  readonly group: Group;
  /** 0 at the top. */
  readonly depth: number;
  readonly groups: readonly GroupNode[];
}

/** Groups nested, by name, then id. One whose parent is gone, or that would stand in itself, stands at the top. */
export function groupTree(groups: Iterable<Group>): GroupNode[] {
  const all = [...groups].sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.id < b.id ? -1 : 1));
  const known = new Map(all.map((group) => [group.id, group]));
  const parentOf = (group: Group): string | null =>
    group.parent !== null && known.has(group.parent) && !groupChain(known, group.parent).includes(group.id)
      ? group.parent
      : null;
  const under = new Map<string | null, Group[]>();
  for (const group of all) under.set(parentOf(group), [...(under.get(parentOf(group)) ?? []), group]);
  const nodes = (parent: string | null, depth: number): GroupNode[] =>
    (under.get(parent) ?? []).map((group) => ({ group, depth, groups: nodes(group.id, depth + 1) }));
  return nodes(null, 0);
}

/** Ids of a group and of all that it stands in, inmost first. Ends where a parent is gone or comes twice. */
export function groupChain(groups: Pick<ReadonlyMap<string, Group>, 'get'>, id: string | null | undefined): string[] {
  const chain: string[] = [];
  for (
    let group = id ? groups.get(id) : undefined;
    group && !chain.includes(group.id);
    group = group.parent === null ? undefined : groups.get(group.parent)
  )
    chain.push(group.id);
  return chain;
}

/** Ids of the groups for which something holds, and of all that stand in them. */
export function groupsWithin(groups: ReadonlyMap<string, Group>, holds: (group: Group) => boolean): Set<string> {
  const roots = new Set([...groups.values()].filter(holds).map(({ id }) => id));
  return roots.size === 0
    ? roots
    : new Set([...groups.keys()].filter((id) => groupChain(groups, id).some((one) => roots.has(one))));
}

/** Content without what its groups set aside. The same object when nothing is. */
export function withoutAside(content: StratumContent): StratumContent {
  const aside = groupsWithin(new Map(content.group.map((group) => [group.id, group])), (group) => group.aside !== null);
  if (aside.size === 0) return content;
  return contentOfKinds((kind) => {
    const { group } = specOf(kind);
    return listOf(content, kind).filter((item) => !aside.has(group(item) ?? ''));
  });
}
