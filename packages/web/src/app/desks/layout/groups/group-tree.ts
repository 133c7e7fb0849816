import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { Group } from '@stravel/core';
import { OwnEyes } from '../parts/own-eyes';
import { CountedPipe } from '../../../ui/counted-pipe';
import { Help } from '../../../guide/help';

/** One group as a row. */
export interface GroupRow {
  readonly group: Group;
  readonly depth: number;
  /** Things in it and in the groups that stand in it. */
  readonly count: number;
  readonly hidden: boolean;
  readonly locked: boolean;
  readonly soloed: boolean;
  readonly active: boolean;
}

export const GROUP_COMMANDS = [
  'edit',
  'new inside',
  'add selection',
  'select',
  'solo',
  'switch',
  'parked',
  'save as template',
  'delete',
  'delete with objects',
] as const;
export type GroupCommand = (typeof GROUP_COMMANDS)[number];

/** The groups of a stratum, nested. */
@Component({
  selector: 'sv-group-tree',
  imports: [Help, CountedPipe, MatMenuModule, OwnEyes],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header (dblclick)="enlarged.emit()">
      <h3>Groups</h3> <sv-help about="layout/groups" what="groups" />
      @if (asideCount() > 0) {
        <button class="plain near" title="What is parked, and why" (click)="asideOpened.emit()">{{ asideCount() }} parked</button>
      }
      <button class="plain" [matMenuTriggerFor]="addMenu" aria-label="Add a group">+</button>
      <mat-menu #addMenu="matMenu">
        <button mat-menu-item (click)="added.emit('')">New group</button>
        @for (name of templates(); track name) {
          <button mat-menu-item (click)="added.emit(name)">{{ name }} <span class="soft">template</span></button>
        }
      </mat-menu>
    </header>
    <ul aria-label="Groups of the stratum">
      @for (row of rows(); track row.group.id) {
        <li [matContextMenuTriggerFor]="menu" [matContextMenuTriggerData]="{ row }" [class.active]="row.active" [class.off]="row.hidden || row.group.aside" [class.marked]="row.hidden || row.locked" [style.padding-left.px]="row.depth * 10">
          <span class="mark" [class]="'mark colour-' + row.group.colour" aria-hidden="true"></span>
          <button
            class="plain name"
            [attr.aria-pressed]="row.active"
            title="New objects go into this group"
            (click)="activated.emit(row.group.id)"
            (dblclick)="asked.emit({ id: row.group.id, command: 'edit' })"
          >
            <span>{{ row.group.name }}</span>
            <span class="soft">{{ text(row) }}</span>
          </button>
          <span class="row-acts">
          <sv-own-eyes
            [name]="'group ' + row.group.name"
            [isHidden]="row.hidden"
            [isLocked]="row.locked"
            (hidden)="hidden.emit(row.group.id)"
            (locked)="locked.emit(row.group.id)"
          />
          <button class="plain quiet" [matMenuTriggerFor]="menu" [matMenuTriggerData]="{ row }" [attr.aria-label]="'What to do with group ' + row.group.name">⋮</button>
          </span>
        </li>
      } @empty {
        <li class="soft none">No groups yet. A group is a folder for objects of this stratum.</li>
      }
    </ul>
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent let-row="row">
        <button mat-menu-item (click)="ask(row, 'edit')">Name, category, guard…</button>
        <button mat-menu-item (click)="ask(row, 'new inside')">New group inside</button>
        <button mat-menu-item [disabled]="selected() === 0" (click)="ask(row, 'add selection')">Add the selection</button>
        <button mat-menu-item [disabled]="row.count === 0" (click)="ask(row, 'select')">Select its {{ row.count | counted: 'object' }}</button>
        <button mat-menu-item (click)="ask(row, 'solo')">{{ row.soloed ? 'End solo' : 'Solo' }}</button>
        <button mat-menu-item (click)="ask(row, 'switch')">{{ row.group.switchedOff ? 'Switch on in test runs' : 'Switch off in test runs' }}</button>
        <button mat-menu-item (click)="ask(row, 'parked')">{{ row.group.aside ? 'Unpark' : 'Park…' }}</button>
        <button mat-menu-item (click)="ask(row, 'save as template')">Save its folders as a template</button>
        <button mat-menu-item (click)="ask(row, 'delete')">Delete the group, keep its objects</button>
        <button mat-menu-item (click)="ask(row, 'delete with objects')">Delete it with its objects…</button>
      </ng-template>
    </mat-menu>
  `,
  styleUrl: './group-tree.scss',
})
export class GroupTree {
  readonly rows = input.required<readonly GroupRow[]>();
  readonly templates = input<readonly string[]>([]);
  /** How many things are selected. */
  readonly selected = input(0);
  readonly asideCount = input(0);
  readonly activated = output<string>();
  readonly hidden = output<string>();
  readonly locked = output<string>();
  /** Name of a template; '' for one group. */
  readonly added = output<string>();
  readonly asideOpened = output();
  /** It was asked to take all the height, or to give it back. */
  readonly enlarged = output();
  readonly asked = output<{ readonly id: string; readonly command: GroupCommand }>();

  ask(row: GroupRow, command: GroupCommand): void {
    this.asked.emit({ id: row.group.id, command });
  }

  text({ group, count, hidden, soloed }: GroupRow): string {
    if (group.aside) return `parked: ${group.aside.reason}`;
    const parts = [
      group.category,
      hidden ? 'hidden for you' : soloed ? 'solo' : '',
      group.switchedOff ? 'switched off' : '',
      group.guard ? 'guarded' : '',
    ].filter(Boolean);
    return [String(count), ...parts].join(' · ');
  }
}
