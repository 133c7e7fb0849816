import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { NumberField } from '../../../../ui/number-field';
import { HeightOption } from '../../parts/height-option';
import { LayoutDesk } from '../../editing/layout-desk';
import { layoutActions } from '../../store/layout-store';
import { BLOCK_FORMS } from '../../store/layout-tools';

/** Form and measures of new blocks. */
@Component({
  selector: 'sv-block-options',
  imports: [HeightOption, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <select class="cell" #form aria-label="Form of new blocks" (change)="choose(form.selectedIndex)">
      @for (one of forms; track one) {
        <option [selected]="state().tool === one">{{ one }}</option>
      }
    </select>
    <sv-height-option />
    @if (state().tool === 'cylinder') {
      <span class="inline"
        >sides
        <sv-number-field
          label="Sides of new cylinders"
          [least]="3"
          [most]="64"
          [value]="state().sides"
          (kept)="store.dispatch(actions.sidesSet({ sides: $event }))"
      /></span>
    }
  `,
  styleUrl: '../../plan/tool-options.scss',
})
export class BlockOptions {
  readonly store = inject(Store);
  readonly state = inject(LayoutDesk).state;
  readonly actions = layoutActions;
  readonly forms = BLOCK_FORMS;

  choose(index: number): void {
    this.store.dispatch(layoutActions.toolChosen({ tool: BLOCK_FORMS[index] }));
  }
}
