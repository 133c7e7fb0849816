import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { VOLUME_FORMS } from '@stravel/core';
import { HeightOption } from '../../parts/height-option';
import { LayoutDesk } from '../../editing/layout-desk';
import { layoutActions } from '../../store/layout-store';
import { kindGroups } from '../cards/item-kinds';

/** Form, kind and height of new volumes. */
@Component({
  selector: 'sv-volume-options',
  imports: [HeightOption],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <select class="cell" #form aria-label="Form of new volumes" (change)="choose(form.selectedIndex)">
      @for (one of forms; track one) {
        <option [selected]="state().volumeForm === one">{{ one }}</option>
      }
    </select>
    <select class="cell" #kind aria-label="Kind of new volumes" (change)="store.dispatch(actions.volumeKindChosen({ kind: kind.value }))">
      <option value="">no kind</option>
      @for (group of kinds(); track group.register) {
        <optgroup [label]="group.register">
          @for (entry of group.entries; track entry.id) {
            <option [value]="entry.id" [selected]="state().volumeKind === entry.id">{{ entry.name }}</option>
          }
        </optgroup>
      }
    </select>
    @if (state().volumeForm !== 'sphere') {
      <sv-height-option />
    }
  `,
  styleUrl: '../../plan/tool-options.scss',
})
export class VolumeOptions {
  readonly store = inject(Store);
  private readonly desk = inject(LayoutDesk);
  readonly state = this.desk.state;
  readonly actions = layoutActions;
  readonly forms = VOLUME_FORMS;
  readonly kinds = computed(() => kindGroups(this.desk.tables(), 'volume'));

  choose(index: number): void {
    this.store.dispatch(layoutActions.volumeFormChosen({ form: VOLUME_FORMS[index] }));
  }
}
