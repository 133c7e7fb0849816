import { COLOUR_NAMES } from '../../../ui/colour-names';
import { Injectable, computed, inject } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Store } from '@ngrx/store';
import {
  GROUP_COLOURS,
  counted,
  groupTree,
  plainJson,
  type CollectionSettings,
  type Group,
  type GroupColour,
  type GroupNode,
  type GroupTemplate,
} from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { recordsFeature } from '../../../document/records/records-store';
import type { StratumDocument } from '../../../document/stratum-document';
import { EditLog } from '../../../edits/edit-log';
import { setField, setRecordField } from '../../../edits/operations';
import { Ask, nameFault } from '../../../ui/ask';
import { guardsOf } from '../editing/guards';
import { LayoutDesk } from '../editing/layout-desk';
import { layoutActions, layoutFeature } from '../store/layout-store';
import { LossDialog, type LossData } from '../../../ui/loss-dialog';
import { AsideDialog, type AsideData, type AsideLine } from './aside-dialog';
import {
  OLD_DAYS,
  daysBetween,
  deleteGroup,
  groupsUnder,
  makeFromTemplate,
  memberCounts,
  membersOf,
  newGroup,
  putIntoGroup,
  templateOf,
} from './group-edits';
import type { GroupCommand, GroupRow } from './group-tree';

type NamedGroup = Pick<Group, 'name' | 'category' | 'colour' | 'guard'>;

/** The groups of the stratum that one stands on, and what can be done with them. */
@Injectable()
export class GroupsDesk {
  private readonly store = inject(Store);
  private readonly dialogs = inject(Dialogs);
  private readonly ask = inject(Ask);
  private readonly edits = inject(EditLog);
  private readonly registry = inject(DocumentRegistry);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly state = this.store.selectSignal(layoutFeature.selectLayoutState);
  private readonly document = computed(() => {
    this.registry.contentVersion();
    const active = this.desk.activeStratum()?.id;
    return this.openLevel.strata().find(({ id }) => id === active);
  });

  readonly templates = computed(() => this.settings()?.groupTemplates ?? []);
  readonly rows = computed((): GroupRow[] => {
    this.registry.contentVersion();
    const document = this.document();
    return document ? groupRows(document, this.state()) : [];
  });
  readonly aside = computed((): AsideLine[] => {
    this.registry.contentVersion();
    const today = new Date().toISOString().slice(0, 10);
    return this.openLevel
      .strata()
      .flatMap((document) =>
        [...document.tables.group.values()].flatMap(({ id, name, aside }): AsideLine[] => {
          if (!aside) return [];
          const days = daysBetween(aside.since, today);
          return [
            {
              id,
              stratum: document.id,
              name,
              ...aside,
              days,
              isOld: days >= OLD_DAYS,
              count: membersOf(document, groupsUnder(document.tables.group, id)).length,
            },
          ];
        }),
      )
      .sort((a, b) => b.days - a.days);
  });

  async add(template: string): Promise<void> {
    const document = this.document();
    if (!document) return;
    const found = this.templates().find(({ name }) => name === template);
    if (found) await this.desk.commit(`groups of ${found.name}`, makeFromTemplate(document.id, found));
    else await this.addGroup(document, null);
  }

  async do(id: string, command: GroupCommand): Promise<void> {
    const document = this.document();
    const group = document?.tables.group.get(id);
    if (!document || !group) return;
    const commands: Record<GroupCommand, () => unknown> = {
      edit: () => this.edit(document, group),
      'new inside': () => this.addGroup(document, id),
      'add selection': () =>
        this.desk.commit(`add to group ${group.name}`, putIntoGroup(document, this.state().selection, id)),
      select: () =>
        this.desk.select(
          membersOf(document, groupsUnder(document.tables.group, id)).map(({ kind, item }) => ({
            stratum: document.id,
            kind,
            id: item.id,
          })),
        ),
      solo: () => this.store.dispatch(layoutActions.soloed({ id })),
      switch: () =>
        this.desk.commit(`switch ${group.name} ${group.switchedOff ? 'on' : 'off'}`, [
          setField(document.id, 'group', group, 'switchedOff', !group.switchedOff),
        ]),
      parked: () => (group.aside ? this.bringBack(document.id, group) : this.setAside(document, group)),
      'save as template': () => this.saveTemplate(document, group),
      delete: () => this.delete(document, group, false),
      'delete with objects': () => this.delete(document, group, true),
    };
    await commands[command]();
  }

  /** Takes the selection out of its groups. */
  async ungroup(): Promise<void> {
    const { selection } = this.state();
    await this.desk.commit(
      'remove from groups',
      this.openLevel.strata().flatMap((document) => putIntoGroup(document, selection, null)),
    );
  }

  openAside(): void {
    const data: AsideData = {
      level: this.openLevel.level()?.name ?? '',
      lines: this.aside,
      bringBack: ({ stratum, id }) => {
        const group = this.openLevel.stratum(stratum)?.tables.group.get(id);
        if (group) void this.bringBack(stratum, group);
      },
    };
    void this.dialogs.open(AsideDialog, data);
  }

  private async addGroup(document: StratumDocument, parent: string | null): Promise<void> {
    const result = await this.askGroup('New group', { name: '', category: '', colour: 'none', guard: '' });
    if (!result) return;
    const { group, operation } = newGroup(document.id, { ...result, parent });
    if (await this.desk.commit(`group ${result.name}`, [operation]))
      this.store.dispatch(layoutActions.groupActivated({ id: group.id }));
  }

  private async edit(document: StratumDocument, group: Group): Promise<void> {
    const result = await this.askGroup('Group', group);
    const now = document.tables.group.get(group.id);
    if (!result || !now) return;
    const fields = (['name', 'category', 'colour', 'guard'] as const).filter((field) => now[field] !== result[field]);
    await this.desk.commit(
      `group ${result.name}`,
      fields.map((field) => setField(document.id, 'group', now, field, result[field])),
    );
  }

  private async setAside(document: StratumDocument, group: Group): Promise<void> {
    const answers = await this.ask.for({
      title: `Park ${group.name}`,
      text: 'It is kept, but no longer part of the level: no bake, budget or pack counts it.',
      questions: [{ key: 'reason', label: 'Reason', kind: 'text', value: '' }],
      command: 'Park',
      fault: ({ reason }) => (String(reason).trim() === '' ? 'Say why, for those who find it later.' : ''),
    });
    if (!answers) return;
    const aside = { reason: String(answers['reason']).trim(), since: new Date().toISOString().slice(0, 10) };
    if (await this.desk.commit(`set ${group.name} aside`, [setField(document.id, 'group', group, 'aside', aside)]))
      this.desk.select([]);
  }

  private async bringBack(stratum: string, group: Group): Promise<void> {
    await this.desk.commit(`bring ${group.name} back`, [setField(stratum, 'group', group, 'aside', null)]);
  }

  private async delete(document: StratumDocument, group: Group, withThings: boolean): Promise<void> {
    const under = groupsUnder(document.tables.group, group.id);
    const guards = guardsOf(document, withThings ? under : [group.id]);
    const count = membersOf(document, under).length;
    if (withThings || guards.length > 0) {
      const data: LossData = {
        title: `Delete ${group.name}${withThings ? ` with ${counted(count, 'object')}` : ''}?`,
        text: guards.length > 0 ? 'It is guarded:' : 'Undo brings it back.',
        losses: guards,
        command: 'Delete',
      };
      if (!(await this.dialogs.open(LossDialog, data))) return;
    }
    if (await this.desk.commit(`delete ${group.name}`, deleteGroup(document, group.id, withThings)))
      this.desk.select([]);
  }

  private async saveTemplate(document: StratumDocument, group: Group): Promise<void> {
    const settings = this.settings();
    if (!settings) return;
    const made = templateOf(document.tables.group, group.id, group.name);
    const others = (settings.groupTemplates ?? []).filter(({ name }) => name !== made.name);
    await this.edits.commit(`template ${made.name}`, [
      setRecordField('collection', settings, 'groupTemplates', plainJson<readonly GroupTemplate[]>([...others, made])),
    ]);
    this.desk.notify(`${made.name} is a template now: use + above the groups to add it to any stratum.`);
  }

  private async askGroup(title: string, group: NamedGroup): Promise<NamedGroup | undefined> {
    const categories = new Set(
      this.openLevel
        .strata()
        .flatMap(({ tables: { group: groups } }) => [...groups.values()].map(({ category }) => category)),
    );
    const answers = await this.ask.for({
      title,
      text: 'With a guard, deleting the group or anything in it asks first and shows this reason.',
      questions: [
        { key: 'name', label: 'Name', kind: 'text', value: group.name },
        {
          key: 'category',
          label: 'Category',
          kind: 'text',
          value: group.category,
          suggestions: [...categories].filter(Boolean).sort(),
        },
        {
          key: 'colour',
          label: 'Colour',
          kind: 'choice',
          value: group.colour,
          choices: GROUP_COLOURS.map((colour) => ({ value: colour, name: COLOUR_NAMES[colour] })),
        },
        { key: 'guard', label: 'Guard', kind: 'text', value: group.guard },
      ],
      command: 'Save',
      fault: ({ name }) => nameFault(name),
    });
    const text = (key: string): string => String(answers?.[key]).trim();
    return (
      answers && {
        name: text('name'),
        category: text('category'),
        colour: text('colour') as GroupColour,
        guard: text('guard'),
      }
    );
  }

  private settings(): CollectionSettings | undefined {
    return Object.values(this.tables().collection).at(0);
  }
}

/** The groups of a stratum as rows, each with what stands in it and below. */
export function groupRows(
  document: StratumDocument,
  state: {
    readonly hiddenGroups: readonly string[];
    readonly lockedGroups: readonly string[];
    readonly soloed: string;
    readonly activeGroup: string;
  },
): GroupRow[] {
  const counts = memberCounts(document);
  const total = ({ group, groups }: GroupNode): number =>
    (counts.get(group.id) ?? 0) + groups.reduce((sum, node) => sum + total(node), 0);
  const rows = (nodes: readonly GroupNode[]): GroupRow[] =>
    nodes.flatMap((node) => [
      {
        group: node.group,
        depth: node.depth,
        count: total(node),
        hidden: state.hiddenGroups.includes(node.group.id),
        locked: state.lockedGroups.includes(node.group.id),
        soloed: state.soloed === node.group.id,
        active: state.activeGroup === node.group.id,
      },
      ...rows(node.groups),
    ]);
  return rows(groupTree(document.tables.group.values()));
}
