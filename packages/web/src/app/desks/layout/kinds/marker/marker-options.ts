import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { MARKER_KINDS } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import { layoutActions } from '../../store/layout-store';

/** Kind of new markers. */
@Component({
  selector: 'sv-marker-options',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <select class="cell" #marker aria-label="Kind of marker" (change)="choose(marker.selectedIndex)">
      @for (kind of kinds; track kind) {
        <option [selected]="state().marker === kind">{{ kind }}</option>
      }
    </select>
  `,
  styleUrl: '../../plan/tool-options.scss',
})
export class MarkerOptions {
  private readonly store = inject(Store);
  readonly state = inject(LayoutDesk).state;
  readonly kinds = MARKER_KINDS;

  choose(index: number): void {
    this.store.dispatch(layoutActions.markerChosen({ kind: MARKER_KINDS[index] }));
  }
}
