import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { PATH_FORMS } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import { layoutActions } from '../../store/layout-store';

/** Form of new paths. */
@Component({
  selector: 'sv-path-options',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <select class="cell" #form aria-label="Form of new paths" (change)="choose(form.selectedIndex)">
      @for (one of forms; track one) {
        <option [selected]="state().pathForm === one">{{ one }}</option>
      }
    </select>
  `,
  styleUrl: '../../plan/tool-options.scss',
})
export class PathOptions {
  private readonly store = inject(Store);
  readonly state = inject(LayoutDesk).state;
  readonly forms = PATH_FORMS;

  choose(index: number): void {
    this.store.dispatch(layoutActions.pathFormChosen({ form: PATH_FORMS[index] }));
  }
}
