import type { Group } from '../../model/group';
import type { Item, ItemKind } from '../../model/stratum';
import type { Vector3 } from '../../model/vector';
import { groupsWithin } from '../groups';
import type { LevelContent } from '../level-content';
import { PLACED_KINDS, anchorOf, type PlacedItemOf } from '../place-items';

/** What links of a level may begin or end at. */
export interface LinkEnd {
  readonly kind: ItemKind;
  readonly name: string;
  readonly place: Vector3 | undefined;
  /** Not there in test runs. */
  readonly isOff: boolean;
}

/** All that links of a level may begin or end at, by id. */
export function linkEnds({ level, strata }: LevelContent): Map<string, LinkEnd> {
  const switchedOff = new Set(level.strata.filter((entry) => entry.switchedOff).map(({ stratum }) => stratum));
  const ends = new Map<string, LinkEnd>();
  for (const { stratum, content } of strata) {
    const groups = new Map<string, Group>(content.group.map((group) => [group.id, group]));
    const off = groupsWithin(groups, (group) => group.switchedOff);
    const isOff = (group: string | null | undefined): boolean =>
      switchedOff.has(stratum.id) || Boolean(group && off.has(group));
    for (const kind of PLACED_KINDS) {
      for (const item of content[kind] as readonly Item[]) {
        const group = 'group' in item ? item.group : undefined;
        ends.set(item.id, {
          kind,
          name: nameOf(kind, item),
          place: anchorOf({ kind, item } as PlacedItemOf),
          isOff: isOff(group),
        });
      }
    }
    for (const group of content.group)
      ends.set(group.id, { kind: 'group', name: group.name, place: undefined, isOff: isOff(group.id) });
  }
  return ends;
}

function nameOf(kind: ItemKind, item: Item): string {
  return 'name' in item && item.name !== ''
    ? item.name
    : kind === 'marker' && 'kind' in item
      ? `a ${item.kind}`
      : `a ${kind}`;
}
