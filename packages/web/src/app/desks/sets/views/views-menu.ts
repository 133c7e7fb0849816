import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { PLAIN_VIEW } from '@stravel/core';
import { Chevron } from '../../../ui/chevron';
import type { ShownView } from './shown-view';

/** Chooses a saved view, or opens what a view is made of. */
@Component({
  selector: 'sv-views-menu',
  imports: [Chevron, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button class="chip" [matMenuTriggerFor]="menu" [title]="view().text()">
      <span>{{ view().text() }}</span> <sv-chevron />
    </button>
    <mat-menu #menu="matMenu">
      @for (one of view().views(); track one.id) {
        <button mat-menu-item [attr.aria-current]="one.id === view().chosen() ? 'true' : null" (click)="view().choose(one.id)">{{ one.name }}</button>
      } @empty {
        <span mat-menu-item disabled>No saved views yet</span>
      }
      <button mat-menu-item (click)="all()">Show all</button>
      <button mat-menu-item (click)="view().isOpen.set(!view().isOpen())">
        {{ view().isOpen() ? 'Close filter, sort and columns' : 'Filter, sort and columns…' }}
      </button>
    </mat-menu>
  `,
  styles: `
    :host {
      flex: 0 1 auto;
      min-width: 0;
    }
    button.chip {
      display: flex;
      align-items: center;
      gap: 6px;
      max-width: 200px;
    }
    span {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class ViewsMenu {
  readonly view = input.required<ShownView>();

  all(): void {
    this.view().rules.set(PLAIN_VIEW);
    this.view().chosen.set('');
  }
}
