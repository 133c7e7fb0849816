import { groupChain, groupsWithin, type Group } from '@stravel/core';

/** What a person does not want to see of the groups. */
export interface HiddenGroups {
  readonly hidden: ReadonlySet<string>;
  /** The one group that is shown alone; '' for all. */
  readonly alone: string;
}

/** Nothing is hidden. */
export const ALL_GROUPS: HiddenGroups = { hidden: new Set(), alone: '' };

/** Stands among unseen groups for what is in no group. */
const NO_GROUP = '';

/** Groups of a stratum that are not drawn: those that are set aside, those that a person hid, and all that stands in them. */
export function unseenGroups(
  { tables: { group: groups } }: { readonly tables: { readonly group: ReadonlyMap<string, Group> } },
  { hidden, alone }: HiddenGroups,
): ReadonlySet<string> {
  const unseen = groupsWithin(groups, ({ id, aside }) => aside !== null || hidden.has(id));
  if (alone === '') return unseen;
  for (const id of groups.keys()) if (!groupChain(groups, id).includes(alone)) unseen.add(id);
  return unseen.add(NO_GROUP);
}

/** Whether something in a group, or in none, is drawn. */
export function isSeen(group: string | null | undefined, unseen: ReadonlySet<string>): boolean {
  return unseen.size === 0 || !unseen.has(group ?? NO_GROUP);
}
