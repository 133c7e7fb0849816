import { Chevron } from '../../../ui/chevron';
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { SNAP_TARGETS, layoutActions, layoutFeature } from '../store/layout-store';

const SNAPS = [0, 0.05, 0.1, 0.125, 0.25, 0.5, 1, 2, 4];

/** What new and moved objects snap to. */
@Component({
  selector: 'sv-snap-options',
  imports: [Chevron, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      class="chip"
      [matMenuTriggerFor]="menu"
      [attr.aria-label]="'Snap: ' + text(metres())"
      [attr.aria-pressed]="targets().length > 0"
      title="Snap to a grid and to objects; hold Alt for no snapping"
    >
      <span class="soft">snap</span> {{ text(metres()) }} <sv-chevron />
    </button>
    <mat-menu #menu="matMenu">
      @for (one of snaps; track one) {
        <button mat-menu-item role="menuitemradio" [attr.aria-checked]="one === metres()" (click)="store.dispatch(actions.snapChosen({ metres: one }))">
          {{ one === metres() ? '✓ ' : '' }}{{ text(one) }}
        </button>
      }
      <hr />
      @for (target of all; track target) {
        <button mat-menu-item role="menuitemcheckbox" [attr.aria-checked]="targets().includes(target)" (click)="store.dispatch(actions.snapTargetFlipped({ target }))">
          {{ targets().includes(target) ? '✓ ' : '' }}{{ target === 'surfaces' ? 'place new objects on the surface below' : target }}
        </button>
      }
    </mat-menu>
  `,
  styles: `
    .chip {
      width: 92px;
      white-space: nowrap;
    }
    .chip[aria-pressed='true'] {
      border-color: var(--brine);
      background: var(--raised);
      color: var(--ink);
    }
    hr {
      border: 0;
      border-top: 1px solid var(--line);
    }
  `,
})
export class SnapOptions {
  readonly store = inject(Store);
  readonly metres = this.store.selectSignal(layoutFeature.selectSnapMetres);
  readonly targets = this.store.selectSignal(layoutFeature.selectSnapTargets);
  readonly actions = layoutActions;
  readonly snaps = SNAPS;
  readonly all = SNAP_TARGETS;

  text(metres: number): string {
    return metres === 0 ? 'off' : `${metres} m`;
  }
}
