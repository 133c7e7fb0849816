import { counted } from '@stravel/core';
import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { StratumRole } from '@stravel/core';
import { OwnEyes } from '../parts/own-eyes';
import { Help } from '../../../guide/help';

/** One stratum as a row of the stack. */
export interface StackRow {
  readonly id: string;
  readonly name: string;
  readonly role: StratumRole;
  /** What stands in it, in words. */
  readonly text: string;
  /** Share of the level's memory, 0 to 1. */
  readonly share: number;
  readonly levels: number;
  /** Whether it belongs to no level alone. */
  readonly isShared: boolean;
  /** Things that this level has otherwise. */
  readonly patches: number;
  readonly hidden: boolean;
  readonly locked: boolean;
  readonly soloed: boolean;
  readonly switchedOff: boolean;
  readonly active: boolean;
}

export const STRATUM_COMMANDS = [
  'rename',
  'up',
  'down',
  'solo',
  'switch',
  'patches',
  'separate copy',
  'remove',
  'delete',
] as const;
export type StratumCommand = (typeof STRATUM_COMMANDS)[number];

/** The strata of a level, top first: rows of equal height, coloured by role, with their cost as a thin gauge. */
@Component({
  selector: 'sv-strata-stack',
  imports: [Help, CdkDrag, CdkDragHandle, CdkDropList, MatMenuModule, OwnEyes],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header (dblclick)="enlarged.emit()">
      <h3>Strata</h3> <sv-help about="layout/strata" what="strata" />
      @if (!isAssembly()) {
        <button class="plain" [matMenuTriggerFor]="addMenu" aria-label="Add a stratum">+</button>
        <mat-menu #addMenu="matMenu">
          <button mat-menu-item (click)="added.emit()">New stratum</button>
          <button mat-menu-item (click)="sharedAdded.emit()">Add a shared stratum…</button>
        </mat-menu>
      }
    </header>
    <ul aria-label="Strata, top first" cdkDropList (cdkDropListDropped)="dropped($event)">
      @for (row of rows(); track row.id) {
        <li cdkDrag [cdkDragData]="row.id" [matContextMenuTriggerFor]="menu" [matContextMenuTriggerData]="{ row }" [matContextMenuTriggerDisabled]="isAssembly()" [class.active]="row.active" [class.off]="row.hidden || row.switchedOff" [class.marked]="row.hidden || row.locked">
          <span class="band" cdkDragHandle title="Drag to reorder" [class]="'band role-' + row.role" aria-hidden="true"></span>
          <button class="plain name" [attr.aria-pressed]="row.active" title="New objects go into this stratum" (click)="activated.emit(row.id)">
            <span [title]="row.name">{{ row.name }}</span>
            <span class="soft" [title]="words(row)">{{ words(row) }}</span>
            <span class="gauge" aria-hidden="true"><i [style.width.%]="row.share * 100"></i></span>
          </button>
          <span class="row-acts">
          <sv-own-eyes [name]="row.name" [isHidden]="row.hidden" [isLocked]="row.locked" (hidden)="hidden.emit(row.id)" (locked)="locked.emit(row.id)" />
          @if (!isAssembly()) {
            <button class="plain quiet more" [matMenuTriggerFor]="menu" [matMenuTriggerData]="{ row }" [attr.aria-label]="'What to do with ' + row.name">⋮</button>
          }
          </span>
        </li>
      }
    </ul>
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent let-row="row">
        <button mat-menu-item (click)="ask(row, 'rename')">Name and role…</button>
        <button mat-menu-item [disabled]="rows()[0]?.id === row.id" (click)="ask(row, 'up')">Move up</button>
        <button mat-menu-item [disabled]="rows().at(-1)?.id === row.id" (click)="ask(row, 'down')">Move down</button>
        <button mat-menu-item (click)="ask(row, 'solo')">{{ row.soloed ? 'End solo' : 'Solo' }}</button>
        <button mat-menu-item (click)="ask(row, 'switch')">{{ row.switchedOff ? 'Switch on in test runs' : 'Switch off in test runs' }}</button>
        @if (row.isShared) {
          <button mat-menu-item (click)="ask(row, 'patches')">Local changes in this level… ({{ row.patches }})</button>
          <button mat-menu-item (click)="ask(row, 'separate copy')">Make a separate copy for this level</button>
        }
        @if (row.levels > 1) {
          <button mat-menu-item (click)="ask(row, 'remove')">Remove from this level…</button>
        }
        <button mat-menu-item (click)="ask(row, 'delete')">{{ row.levels > 1 ? 'Delete in all ' + row.levels + ' levels…' : 'Delete…' }}</button>
      </ng-template>
    </mat-menu>
  `,
  styleUrl: './strata-stack.scss',
})
export class StrataStack {
  readonly rows = input.required<readonly StackRow[]>();
  /** Whether it is the one stratum of an assembly, which stands in no stack. */
  readonly isAssembly = input(false);
  readonly activated = output<string>();
  readonly hidden = output<string>();
  readonly locked = output<string>();
  readonly added = output();
  readonly sharedAdded = output();
  readonly asked = output<{ readonly id: string; readonly command: StratumCommand }>();
  /** It was asked to take all the height, or to give it back. */
  readonly enlarged = output();
  /** A stratum was dragged to a place counted from the top. */
  readonly moved = output<{ readonly id: string; readonly to: number }>();

  ask(row: StackRow, command: StratumCommand): void {
    this.asked.emit({ id: row.id, command });
  }

  dropped({ item, previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    if (previousIndex !== currentIndex) this.moved.emit({ id: item.data as string, to: currentIndex });
  }

  words(row: StackRow): string {
    const states = [
      row.switchedOff ? 'switched off' : '',
      row.hidden ? 'hidden for you' : '',
      row.soloed ? 'solo' : '',
    ].filter(Boolean);
    const share =
      row.levels > 1
        ? [`shared by ${row.levels}`, row.patches > 0 ? counted(row.patches, 'local change') : ''].filter(Boolean)
        : [];
    return [...states, ...share].join(' · ') || row.text;
  }
}
