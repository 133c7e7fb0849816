import { counted } from '@stravel/core';
import { CountedPipe } from '../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { bakesFeature } from '../../../bakes/bakes-store';
import { DocumentRegistry } from '../../../document/document-registry';
import { SharedEdits } from '../../../reach/shared-edits';
import { Workspace } from '../../../workspace';
import { AssembliesDesk } from '../kinds/assembly/assemblies-desk';
import { ItemList } from '../parts/item-list';
import { ContentsDesk } from '../selecting/contents-desk';
import { GroupTree } from '../groups/group-tree';
import { GroupsDesk } from '../groups/groups-desk';
import { LayoutDesk } from '../editing/layout-desk';
import { ContextMenus } from '../../../ui/context-menus';
import { ContextEntries } from '../selecting/context-entries';
import { layoutActions } from '../store/layout-store';
import { stackRows } from './stack-rows';
import { StrataDesk } from './strata-desk';
import { StrataStack, type StackRow, type StratumCommand } from './strata-stack';

type Part = 'strata' | 'groups' | 'contents';

/** The strata of the open level, and the groups and contents of the one that is stood on. */
@Component({
  selector: 'sv-layout-side',
  imports: [CountedPipe, GroupTree, ItemList, StrataStack],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-strata-stack
      [class.small]="tall() !== '' && tall() !== 'strata'"
      [class.tall]="tall() === 'strata'"
      (enlarged)="enlarge('strata')"
      [rows]="stack()"
      [isAssembly]="desk.openLevel.isAssembly()"
      (activated)="dispatch(actions.stratumActivated({ id: $event }))"
      (hidden)="dispatch(actions.stratumHidden({ id: $event }))"
      (locked)="dispatch(actions.stratumLocked({ id: $event }))"
      (added)="strata.addOwned()"
      (sharedAdded)="strata.addShared()"
      (moved)="strata.moveTo($event.id, $event.to)"
      (asked)="asked($event.id, $event.command)"
    />
    @if (desk.openLevel.isAssembly() && desk.openLevel.level(); as own) {
      <p class="soft" [title]="assemblies.levelsOf(own.id).join(', ')">
        An assembly of a kit, in its own coordinates. Changes here change it in {{ assemblies.levelsOf(own.id).length | counted: 'level' }}.
      </p>
      <div class="beside">
        <button class="chip" (click)="assemblies.rename(own.id)">Name…</button>
        <button class="chip" (click)="assemblies.delete(own.id)">Delete</button>
        @if (workspace.level(); as level) {
          <button class="chip" (click)="assemblies.open(level.id)">Back to {{ level.name }}</button>
        }
      </div>
    }
    @if (belongs(); as one) {
      <button class="chip reach" [title]="one.title" (click)="flipBelongs()">{{ one.text }}</button>
    }
    <sv-group-tree
      [class.small]="tall() !== '' && tall() !== 'groups'"
      [class.tall]="tall() === 'groups'"
      (enlarged)="enlarge('groups')"
      [rows]="groups.rows()"
      [templates]="templates()"
      [selected]="desk.selected().length"
      [asideCount]="groups.aside().length"
      (activated)="dispatch(actions.groupActivated({ id: $event }))"
      (hidden)="dispatch(actions.groupHidden({ id: $event }))"
      (locked)="dispatch(actions.groupLocked({ id: $event }))"
      (added)="groups.add($event)"
      (asked)="groups.do($event.id, $event.command)"
      (asideOpened)="groups.openAside()"
    />
    @if (desk.activeStratum(); as stratum) {
      <sv-item-list
        [class.small]="tall() !== '' && tall() !== 'contents'"
        [class.tall]="tall() === 'contents'"
        [title]="stratum.name"
        [items]="contents.listed()"
        [selected]="contents.selectedIds()"
        [describe]="contents.describe()"
        (enlarged)="enlarge('contents')"
        (picked)="desk.pick($event.item, $event.add)"
        (menuAsked)="menus.open($event, entries.ofItem($event.item))"
      />
    }
  `,
  styleUrl: './side-column.scss',
})
export class SideColumn {
  private readonly store = inject(Store);
  private readonly registry = inject(DocumentRegistry);
  private readonly figures = this.store.selectSignal(bakesFeature.selectByLevel);
  private readonly shared = inject(SharedEdits);
  readonly desk = inject(LayoutDesk);
  readonly strata = inject(StrataDesk);
  readonly groups = inject(GroupsDesk);
  readonly contents = inject(ContentsDesk);
  readonly assemblies = inject(AssembliesDesk);
  readonly menus = inject(ContextMenus);
  readonly entries = inject(ContextEntries);
  readonly workspace = inject(Workspace);
  readonly actions = layoutActions;
  readonly tall = signal<Part | ''>('');
  readonly templates = computed(() => this.groups.templates().map(({ name }) => name));
  readonly stack = computed((): StackRow[] => {
    this.registry.contentVersion();
    const { openLevel } = this.desk;
    const level = openLevel.level();
    if (!level) return [];
    const patches = new Map(
      openLevel
        .shared()
        .map((document) => [
          document.id,
          [...document.tables.patch.values()].filter((patch) => patch.level === level.id).length,
        ]),
    );
    return stackRows(level.strata, {
      records: this.desk.tables().stratum,
      documents: new Map(openLevel.strata().map((document) => [document.id, document])),
      figures: (this.figures()[level.id]?.count ?? this.figures()[level.id]?.figures.summary)?.strata ?? [],
      reach: this.desk.reach(),
      patches: (stratum) => patches.get(stratum) ?? 0,
      state: this.desk.state(),
      active: this.desk.activeStratum()?.id,
    });
  });

  /** Where changes of the shared stratum that one works on belong, once it was said. */
  readonly belongs = computed(() => {
    const stratum = this.workedOn();
    const belongs = stratum === undefined ? undefined : this.shared.belongs(stratum);
    if (stratum === undefined || belongs === undefined) return undefined;
    const { level: levels, stratum: records } = this.desk.tables();
    const reach = this.shared.levelsOf(stratum);
    const names = reach.map((id) => levels[id].name).join(', ');
    const { name } = records[stratum];
    return belongs === 'all'
      ? {
          text: `Changes to ${name} affect ${counted(reach.length, 'level')}`,
          title: `${names}. Click to change only this one.`,
        }
      : { text: `Changes to ${name} affect this level only`, title: `Click to change all ${reach.length} levels.` };
  });
  private readonly workedOn = computed(
    () => this.desk.state().selection.at(0)?.stratum ?? this.desk.activeStratum()?.id,
  );

  dispatch(action: ReturnType<(typeof layoutActions)[keyof typeof layoutActions]>): void {
    this.store.dispatch(action);
  }

  /** Gives one part all the height, or back what it took. */
  enlarge(part: Part): void {
    this.tall.update((tall) => (tall === part ? '' : part));
  }

  asked(id: string, command: StratumCommand): void {
    const isOff = this.desk.openLevel.level()?.strata.find(({ stratum }) => stratum === id)?.switchedOff === true;
    const commands: Record<StratumCommand, () => unknown> = {
      rename: () => this.strata.rename(id),
      up: () => this.strata.move(id, 1),
      down: () => this.strata.move(id, -1),
      solo: () => this.dispatch(layoutActions.soloed({ id })),
      switch: () => this.strata.switchOff(id, !isOff),
      patches: () => this.strata.openPatches(id),
      'separate copy': () => this.strata.partWays(id),
      remove: () => this.strata.takeOut(id, false),
      delete: () => this.strata.takeOut(id, true),
    };
    commands[command]();
  }

  flipBelongs(): void {
    const stratum = this.workedOn();
    if (stratum !== undefined) this.shared.choose(stratum, this.shared.belongs(stratum) === 'all' ? 'one' : 'all');
  }
}
