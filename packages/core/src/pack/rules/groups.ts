import { counted } from '../../counted';
import { isOptionalField, kindsWith, listOf, specOf } from '../../items';
import type { ItemKind, StratumContent } from '../../model/items';
import { refused, type PackRule } from './rule';
import { namesIn } from './textures';

/** The field in which an item names its group. */
export const GROUP_FIELD = 'group';

/** Names of the groups that a target asks for: each from the top, 'Audio/Rooms'. */
export function groupPaths(text: string): string[][] {
  return namesIn(text).map((path) => path.split('/').flatMap((name) => name.trim() || []));
}

/** Id of the group that a path of names leads to, undefined where there is none. */
export function groupAt({ group }: Pick<StratumContent, 'group'>, path: readonly string[]): string | undefined {
  let [at, level]: [string | undefined, string | null] = [undefined, null];
  for (const name of path) {
    at = group.find((one) => one.parent === level && one.name === name)?.id;
    if (at === undefined) return undefined;
    level = at;
  }
  return at;
}

export const GROUPS: PackRule = {
  level: ({ level, strata }, { text }, { target }) =>
    groupPaths(text)
      .filter((path) => strata.every(({ content }) => groupAt(content, path) === undefined))
      .map((path) =>
        refused({
          code: 'PACK_GROUP_MISSING',
          subject: `${level.id}.${path.join('/')}`,
          place: { level: level.id },
          message: `${level.name} has no group ${path.join('/')}, which ${target.name} asks for`,
          why: 'The game looks for it by its name.',
        }),
      ),
};

/** Objects of a stratum, as it is kept, that are in no group; uses of assemblies among them, not what is in those. */
export function outsideGroups(stored: StratumContent): { readonly kind: ItemKind; readonly ids: string[] }[] {
  return kindsWith('thing').flatMap((kind) => {
    if (!isOptionalField(kind, GROUP_FIELD)) return [];
    const { group } = specOf(kind);
    const ids = listOf(stored, kind)
      .filter((item) => group(item) === null)
      .map(({ id }) => id);
    return ids.length === 0 ? [] : [{ kind, ids }];
  });
}

export const GROUPED: PackRule = {
  level: ({ level, strata }, _setting, { target, records }) =>
    strata.flatMap(({ stratum, stored }) => {
      const outside = outsideGroups(stored);
      const count = outside.reduce((sum, { ids }) => sum + ids.length, 0);
      if (count === 0) return [];
      const of = Object.hasOwn(records.stratum, stratum) ? records.stratum[stratum].name : stratum;
      return [
        refused({
          code: 'PACK_NO_GROUP',
          subject: stratum,
          place: { level: level.id, stratum, item: outside[0].ids[0] },
          message: `${counted(count, 'object')} of ${of} in ${level.name} outside all groups; ${target.name} takes none`,
          why: 'The game finds objects by their groups.',
        }),
      ];
    }),
};
