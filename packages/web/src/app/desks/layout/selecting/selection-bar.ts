import {
  ChangeDetectionStrategy,
  Component,
  Injector,
  computed,
  inject,
  input,
  runInInjectionContext,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { ASSEMBLY_MENU } from '../kinds/assembly/desk';
import type { PlacedItem } from '../editing/placed-item';
import type { SelectionCommand, SelectionMenu } from '../kinds/item-desk';
import { SelectDesk } from './select-desk';
import { commandsFor, menusFor } from './selection-menus';

/** What can be done with what is selected, and with the selection itself. */
@Component({
  selector: 'sv-selection-bar',
  imports: [MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div role="toolbar" aria-label="What to do with the selection">
      @if (selected().length > 0) {
        @for (command of commands().first; track command.text) {
          <button class="chip" (click)="run(command)">{{ command.text }}</button>
        }
        @for (one of menus(); track one.label) {
          <button class="chip" [matMenuTriggerFor]="menu" [matMenuTriggerData]="{ of: one }">{{ one.label }} ▾</button>
        }
        <button class="chip" [matMenuTriggerFor]="more" aria-label="More" title="More">⋯</button>
        <span class="spring"></span>
        @for (command of commands().last; track command.text) {
          <button class="chip over" (click)="run(command)">{{ command.text }}</button>
        }
      } @else {
        <button class="chip" [matMenuTriggerFor]="more">Select ▾</button>
      }
    </div>
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent let-of="of">
        @for (command of commandsOf(of); track command.text) {
          <button mat-menu-item [disabled]="!command.isFor(selected())" (click)="run(command)">{{ command.text }}</button>
        }
      </ng-template>
    </mat-menu>
    <mat-menu #more="matMenu">
      @if (selected().length > 0) {
        @for (command of commands().more; track command.text) {
          <button mat-menu-item (click)="run(command)">{{ command.text }}</button>
        }
        @for (command of assembly.commands; track command.text) {
          <button mat-menu-item [disabled]="!command.isFor(selected())" (click)="run(command)">{{ command.text }}</button>
        }
        <hr />
      }
      <button mat-menu-item (click)="selection.find()">By name, piece, size…</button>
      <button mat-menu-item [disabled]="selected().length !== 1" (click)="selection.similar()">Select similar</button>
      <button mat-menu-item (click)="selection.all()">Select all</button>
      <button mat-menu-item (click)="selection.invert()">Invert selection</button>
      <button mat-menu-item [disabled]="selected().length === 0" (click)="selection.keep()">Save this selection…</button>
      @for (name of selection.names(); track name) {
        <button mat-menu-item (click)="selection.take(name)">{{ name }} <span class="soft">kept</span></button>
      }
    </mat-menu>
  `,
  styles: `
    [role='toolbar'] {
      display: flex;
      gap: 3px;
    }
    [role='toolbar'] .chip {
      padding: 3px 5px;
      font-size: 12.5px;
      white-space: nowrap;
    }
    .chip.over {
      color: var(--over);
    }
    .spring {
      flex: 1;
    }
    hr {
      border: 0;
      border-top: 1px solid var(--line);
    }
  `,
})
export class SelectionBar {
  private readonly injector = inject(Injector);
  readonly selection = inject(SelectDesk);
  readonly assembly = ASSEMBLY_MENU;
  readonly selected = input.required<readonly PlacedItem[]>();
  readonly menus = computed(() => menusFor(this.selected()));
  readonly commands = computed(() => commandsFor(this.selected()));

  run(command: SelectionCommand): void {
    void runInInjectionContext(this.injector, command.make)();
  }

  /** Gives what a menu is opened with its type. */
  commandsOf(menu: SelectionMenu): readonly SelectionCommand[] {
    return menu.commands;
  }
}
