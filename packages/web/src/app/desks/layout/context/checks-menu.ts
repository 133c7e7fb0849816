import { Chevron } from '../../../ui/chevron';
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { MasksDesk } from '../kinds/mask/masks-desk';
import { TilesDesk } from '../kinds/tile-floor/tiles-desk';
import { ContextDesk } from './context-desk';

/** What can be checked of a level as it is drawn. */
@Component({
  selector: 'sv-checks-menu',
  imports: [Chevron, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (context.checking()) {
      <button class="chip" (click)="context.cancel()">Checking… cancel</button>
    } @else {
      <button class="chip" [matMenuTriggerFor]="menu">
        Checks <sv-chevron />
      </button>
    }
    <mat-menu #menu="matMenu">
      <button mat-menu-item (click)="context.check()">Overlaps and duplicates</button>
      <button mat-menu-item [disabled]="!tiles.selected()" (click)="tiles.solve()">Reachability of the selected tile floor</button>
      <button mat-menu-item [disabled]="!masks.selected()" (click)="masks.look()">Passages of the selected mask</button>
    </mat-menu>
  `,
  styles: `
    .chip {
      white-space: nowrap;
    }
  `,
})
export class ChecksMenu {
  readonly context = inject(ContextDesk);
  readonly tiles = inject(TilesDesk);
  readonly masks = inject(MasksDesk);
}
