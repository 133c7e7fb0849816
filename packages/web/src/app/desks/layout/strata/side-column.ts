import { counted } from '@stravel/core';
import { CountedPipe } from '../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { bakesFeature } from '../../../bakes/bakes-store';
import { DocumentRegistry } from '../../../document/document-registry';
import { LevelView } from '../../../plate/level-view';
import { SharedEdits } from '../../../reach/shared-edits';
import { LevelSwitcher } from '../../../shell/level-switcher';
import { Workspace } from '../../../workspace';
import { AssembliesDesk } from '../kinds/assembly/assemblies-desk';
import { ContextDesk } from '../context/context-desk';
import { GroupTree } from '../groups/group-tree';
import { GroupsDesk } from '../groups/groups-desk';
import { LayoutDesk } from '../editing/layout-desk';
import { OverviewDesk } from '../overview/overview-desk';
import { layoutActions } from '../store/layout-store';
import { KeepScroll } from '../../../document/level/keep-scroll';
import { stackRows } from './stack-rows';
import { StrataDesk } from './strata-desk';
import { StrataStack, type StackRow, type StratumCommand } from './strata-stack';

/** The strata of the open level, and the groups of the one that is stood on. */
@Component({
  selector: 'sv-layout-side',
  hostDirectives: [KeepScroll],
  imports: [CountedPipe, GroupTree, LevelSwitcher, StrataStack],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (desk.openLevel.isAssembly()) {
      <h2>{{ desk.openLevel.level()?.name }}</h2>
    } @else {
      <sv-level-switcher />
    }
    <sv-strata-stack
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
    <div class="beside">
      <button class="chip" title="Show other levels faintly, at their own coordinates" (click)="context.choose()">
        {{ context.shown().length > 0 ? 'With ' + (context.shown().length | counted: 'other') : 'Show other levels…' }}
      </button>
      @if (context.checking()) {
        <button class="chip" (click)="context.cancel()">Checking… cancel</button>
      } @else {
        <button class="chip" title="Find overlapping blocks and duplicate pieces" (click)="context.check()">Overlaps…</button>
      }
      @if (overview.isMaking()) {
        <button class="chip" (click)="overview.cancel()">Counting… cancel</button>
      } @else {
        <button class="chip" title="How densely objects of a category or kind are placed; the rest fades" [attr.aria-pressed]="overview.shown() !== undefined" (click)="overview.choose()">
          Density…
        </button>
      }
    </div>
    @if (overview.shown()) {
      <ul class="regions" aria-label="Outliers">
        @for (region of overview.regions(); track $index) {
          <li>
            <button class="plain" (click)="goTo(region.low, region.high)">{{ region.text }}</button>
          </li>
        } @empty {
          <li class="soft">Nothing is crowded, and nothing is empty.</li>
        }
      </ul>
    }
    @if (belongs(); as one) {
      <button class="chip reach" [title]="one.title" (click)="flipBelongs()">{{ one.text }}</button>
    }
    <sv-group-tree
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
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 12px;
      min-height: 0;
      overflow: auto;
      padding: 1px 2px;
    }
    .regions {
      list-style: none;
      margin: 0;
      padding: 0;
      font-size: 12.5px;
    }
    .beside {
      flex-wrap: wrap;
      display: flex;
      gap: 6px;
    }
    .reach {
      border-color: var(--brine);
      text-align: left;
    }
  `,
})
export class SideColumn {
  private readonly range = inject(LevelView).range;
  private readonly store = inject(Store);
  private readonly registry = inject(DocumentRegistry);
  private readonly figures = this.store.selectSignal(bakesFeature.selectByLevel);
  private readonly shared = inject(SharedEdits);
  readonly desk = inject(LayoutDesk);
  readonly strata = inject(StrataDesk);
  readonly groups = inject(GroupsDesk);
  readonly context = inject(ContextDesk);
  readonly overview = inject(OverviewDesk);
  readonly assemblies = inject(AssembliesDesk);
  readonly workspace = inject(Workspace);
  readonly actions = layoutActions;
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

  goTo([x0, z0]: readonly [number, number], [x1, z1]: readonly [number, number]): void {
    const { bottom, top } = this.range();
    this.desk.plate()?.frame({ min: [x0, bottom, z0], max: [x1, top, z1] });
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
