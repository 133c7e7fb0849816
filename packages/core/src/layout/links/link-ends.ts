import type { Group } from '../../model/group';
import { kindsWith, listOf, specOf } from '../../items';
import type { ItemKind, ItemOfKind } from '../../model/items';
import type { Vector3 } from '../../model/vector';
import { groupsWithin } from '../groups';
import type { StandingLevel } from '../standing-level';

/** What links of a level may begin or end at. */
export interface LinkEnd {
  readonly kind: ItemKind;
  readonly name: string;
  readonly place: Vector3 | undefined;
  /** Not there in test runs. */
  readonly isOff: boolean;
}

/** All that links of a level may begin or end at, by id. */
export function linkEnds({ level, strata }: StandingLevel): Map<string, LinkEnd> {
  const switchedOff = new Set(level.strata.filter((entry) => entry.switchedOff).map(({ stratum }) => stratum));
  const ends = new Map<string, LinkEnd>();
  for (const { stratum, content } of strata) {
    const groups = new Map<string, Group>(content.group.map((group) => [group.id, group]));
    const off = groupsWithin(groups, (group) => group.switchedOff);
    const isOff = (group: string | null | undefined): boolean =>
      switchedOff.has(stratum.id) || Boolean(group && off.has(group));
    for (const kind of kindsWith('linked')) {
      const { place, group } = specOf(kind);
      for (const item of listOf(content, kind)) {
        const inGroup = place ? group(item) : item.id;
        ends.set(item.id, { kind, name: calledIn(kind, item), place: place?.anchor(item), isOff: isOff(inGroup) });
      }
    }
  }
  return ends;
}

/** The name that people gave it, or what it is: 'a spawn', 'a block'. */
function calledIn<K extends ItemKind>(kind: K, item: ItemOfKind[K]): string {
  const { name, traits, words } = specOf(kind);
  const own = name(item, { piece: () => '' });
  return traits.named && own !== '' ? own : `a ${own || words.one}`;
}
