import {
  ITEM_KINDS,
  groupChain,
  type Group,
  type GroupTemplate,
  type Item,
  type ItemKind,
  type Operation,
} from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import { create, newId, remove, setField } from '../../../edits/operations';
import type { ItemRef } from '../store/layout-store';

/** Days after which what is set aside counts as old. */
export const OLD_DAYS = 90;

/** An item with the group that it stands in. */
interface Member {
  readonly kind: ItemKind;
  readonly item: Item & { readonly group?: string | null };
}

/** Everything that stands in some groups. */
export function membersOf(document: StratumDocument, groups: ReadonlySet<string>): Member[] {
  const members: Member[] = [];
  for (let slot = 0; slot < document.tables.placement.slotCount; slot++) {
    const group = document.tables.placement.groupAt(slot);
    const id = group !== undefined && groups.has(group) ? document.tables.placement.idAt(slot) : undefined;
    const item = id === undefined ? undefined : document.tables.placement.get(id);
    if (item) members.push({ kind: 'placement', item });
  }
  for (const kind of ITEM_KINDS) {
    if (kind === 'placement' || kind === 'patch' || kind === 'group') continue;
    for (const item of document.itemsOf(kind))
      if ('group' in item && item.group && groups.has(item.group)) members.push({ kind, item });
  }
  return members;
}

/** How many things stand in each group itself. */
export function memberCounts(document: StratumDocument): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  const count = (group: string | null | undefined): void => {
    if (group) counts.set(group, (counts.get(group) ?? 0) + 1);
  };
  for (let slot = 0; slot < document.tables.placement.slotCount; slot++)
    if (document.tables.placement.idAt(slot) !== undefined) count(document.tables.placement.groupAt(slot));
  for (const kind of ITEM_KINDS) {
    if (kind !== 'placement' && kind !== 'patch' && kind !== 'group')
      for (const item of document.itemsOf(kind)) count('group' in item ? item.group : null);
  }
  return counts;
}

/** A group and all that stand in it. */
export function groupsUnder(groups: ReadonlyMap<string, Group>, id: string): Set<string> {
  return new Set([...groups.keys()].filter((one) => groupChain(groups, one).includes(id)));
}

export function newGroup(
  stratum: string,
  over: Pick<Group, 'name' | 'parent'> & Partial<Group>,
): { readonly group: Group; readonly operation: Operation } {
  const group: Group = {
    category: '',
    colour: 'none',
    switchedOff: false,
    guard: '',
    aside: null,
    ...over,
    id: newId(),
  };
  return { group, operation: create(stratum, 'group', group) };
}

/** Puts items into a group of their own stratum, or into none. Those of other strata stay as they are. */
export function putIntoGroup(document: StratumDocument, items: readonly ItemRef[], group: string | null): Operation[] {
  return items.flatMap(({ stratum, kind, id }) => {
    const item = stratum === document.id ? document.item(kind, id) : undefined;
    if (!item || kind === 'link' || kind === 'group') return [];
    const operation = setField(stratum, kind, item, 'group', group);
    return operation.before === operation.after ? [] : [operation];
  });
}

/** Deletes a group with the groups in it; what stands in them goes too, or comes to stand where the group stood. */
export function deleteGroup(document: StratumDocument, id: string, withThings: boolean): Operation[] {
  const group = document.tables.group.get(id);
  if (!group) return [];
  if (!withThings) {
    const inside = [...document.tables.group.values()].filter(({ parent }) => parent === id);
    return [
      ...membersOf(document, new Set([id])).map(({ kind, item }) =>
        setField(document.id, kind, item, 'group', group.parent),
      ),
      ...inside.map((one) => setField(document.id, 'group', one, 'parent', group.parent)),
      remove(document.id, 'group', group),
    ];
  }
  const under = groupsUnder(document.tables.group, id);
  return [
    ...membersOf(document, under).map(({ kind, item }) => remove(document.id, kind, item)),
    ...[...under].flatMap((one) => {
      const gone = document.tables.group.get(one);
      return gone ? [remove(document.id, 'group', gone)] : [];
    }),
  ];
}

/** Folders of a template, in a stratum. */
export function makeFromTemplate(stratum: string, { parts }: GroupTemplate): Operation[] {
  const ids: string[] = [];
  return parts.map(({ name, parent, category, colour }) => {
    const { group, operation } = newGroup(stratum, {
      name,
      parent: parent === null ? null : ids[parent],
      category,
      colour,
    });
    ids.push(group.id);
    return operation;
  });
}

/** A template of a group and all folders in it. */
export function templateOf(groups: ReadonlyMap<string, Group>, id: string, name: string): GroupTemplate {
  const order: Group[] = [];
  const visit = (group: Group): void => {
    order.push(group);
    for (const one of groups.values()) if (one.parent === group.id && !order.includes(one)) visit(one);
  };
  const root = groups.get(id);
  if (root) visit(root);
  const places = new Map(order.map((group, i) => [group.id, i]));
  return {
    name,
    parts: order.map((group) => ({
      name: group.name,
      parent: group.id === id ? null : (places.get(group.parent ?? '') ?? null),
      category: group.category,
      colour: group.colour,
    })),
  };
}

/** Why some items must not be deleted by accident: the guards of the groups that they stand in, each once. */
export function guardsOf(document: StratumDocument, groups: Iterable<string | null | undefined>): string[] {
  const guards = new Set<string>();
  for (const group of groups) {
    for (const id of groupChain(document.tables.group, group)) {
      const one = document.tables.group.get(id);
      if (one && one.guard !== '') guards.add(`${one.name}: ${one.guard}`);
    }
  }
  return [...guards];
}

/** Whole days between two dates, 'YYYY-MM-DD'. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86400000);
}
