import { counted } from '../../counted';
import type { Operation } from '../../document/operation';
import { specOf } from '../../items';
import { plainJson } from '../../json/plain-json';
import type { Group } from '../../model/group';
import type { StratumContent } from '../../model/items';
import { ruleSetting } from '../target-settings';
import { GROUP_FIELD, groupAt, groupPaths, outsideGroups } from '../rules/groups';
import type { FixLine, FixPlan, FixScene, PackFix } from './fix';

type Groups = Pick<StratumContent, 'group'>;

/** The groups of some strata, with those that are added to them. */
class GrowingGroups {
  private readonly groups = new Map<string, Groups>();
  readonly operations: Operation[] = [];

  constructor(private readonly scene: FixScene) {}

  of(stratum: string): Groups {
    return this.groups.get(stratum) ?? this.scene.strata.get(stratum) ?? { group: [] };
  }

  /** Id of the group that a path of names leads to; what is not there of it is made. */
  need(stratum: string, path: readonly string[]): string {
    let parent: string | null = null;
    for (let depth = 1; depth <= path.length; depth++)
      parent = groupAt(this.of(stratum), path.slice(0, depth)) ?? this.add(stratum, path[depth - 1], parent);
    return parent ?? '';
  }

  private add(stratum: string, name: string, parent: string | null): string {
    const group: Group = {
      id: this.scene.newId(),
      name,
      parent,
      category: '',
      colour: 'none',
      switchedOff: false,
      guard: '',
      aside: null,
    };
    this.groups.set(stratum, { group: [...this.of(stratum).group, group] });
    this.operations.push({
      document: stratum,
      kind: 'group',
      id: group.id,
      field: null,
      before: null,
      after: plainJson(group),
    });
    return group.id;
  }
}

/** Adds the groups that the target asks for: to the level's own stratum where it has one, else to its lowest. */
export const ADD_GROUPS: PackFix = {
  codes: ['PACK_GROUP_MISSING'],
  name: 'Add groups',
  plan: (scene: FixScene): FixPlan => {
    const groups = new GrowingGroups(scene);
    const lines: FixLine[] = [];
    for (const level of scene.levels) {
      const strata = level.strata.map(({ stratum }) => stratum).filter((id) => scene.strata.has(id));
      const own = strata.find((id) => scene.records.stratum[id]?.owner === level.id) ?? strata.at(0);
      if (own === undefined) continue;
      for (const path of groupPaths(ruleSetting(scene.target, 'groups').text)) {
        if (strata.some((id) => groupAt(groups.of(id), path) !== undefined)) continue;
        groups.need(own, path);
        lines.push({ what: level.name, before: 'missing', after: path.join('/') });
      }
    }
    return { lines, left: [], operations: groups.operations, renames: [] };
  },
};

/** Puts objects that are in no group into one named by their kind. */
export const GROUP_OBJECTS: PackFix = {
  codes: ['PACK_NO_GROUP'],
  name: 'Put objects into groups',
  plan: (scene: FixScene): FixPlan => {
    const groups = new GrowingGroups(scene);
    const moved: Operation[] = [];
    const lines: FixLine[] = [];
    for (const stratum of new Set(scene.levels.flatMap((level) => level.strata.map((one) => one.stratum)))) {
      const content = scene.strata.get(stratum);
      for (const { kind, ids } of content ? outsideGroups(content) : []) {
        const { one, many } = specOf(kind).words;
        const name = many[0].toUpperCase() + many.slice(1);
        const group = groups.need(stratum, [name]);
        for (const id of ids)
          moved.push({ document: stratum, kind, id, field: GROUP_FIELD, before: null, after: group });
        lines.push({
          what: scene.records.stratum[stratum]?.name ?? stratum,
          before: counted(ids.length, one, many),
          after: name,
        });
      }
    }
    return { lines, left: [], operations: [...groups.operations, ...moved], renames: [] };
  },
};
