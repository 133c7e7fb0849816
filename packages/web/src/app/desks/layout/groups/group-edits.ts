import { ITEM_KINDS, groupChain, type Group, type GroupTemplate, type Operation } from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import { create, newId, remove, setField } from '../../../edits/operations';
import { isGrouped, placedIn, type PlacedItem } from '../editing/placed-item';
import type { ItemRef } from '../store/layout-store';

/** Days after which what is set aside counts as old. */
export const OLD_DAYS = 90;

/** Kinds that stand in groups. */
const GROUPED_KINDS = ITEM_KINDS.filter(isGrouped);

/** Everything that stands in some groups. */
export function membersOf(document: StratumDocument, groups: ReadonlySet<string>): PlacedItem[] {
  return GROUPED_KINDS.flatMap((kind) =>
    [...document.tableOf(kind).groups()].flatMap(([id, group]) =>
      group && groups.has(group) ? (placedIn(document, { stratum: document.id, kind, id }) ?? []) : [],
    ),
  );
}

/** How many things stand in each group itself. */
export function memberCounts(document: StratumDocument): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const kind of GROUPED_KINDS)
    for (const [, group] of document.tableOf(kind).groups()) if (group) counts.set(group, (counts.get(group) ?? 0) + 1);
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
    if (!item || !isGrouped(kind)) return [];
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

/** Whole days between two dates, 'YYYY-MM-DD'. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86400000);
}
