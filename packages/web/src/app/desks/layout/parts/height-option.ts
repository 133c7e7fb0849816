import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { NumberField } from '../../../ui/number-field';
import { layoutActions, layoutFeature } from '../store/layout-store';

/** Height of new blocks and volumes. */
@Component({
  selector: 'sv-height-option',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="inline"
      >height <sv-number-field label="Height of new blocks, metres" [least]="0.01" [value]="height()" (kept)="store.dispatch(actions.blockHeightSet({ metres: $event }))"
    /></span>
  `,
  styleUrl: '../plan/tool-options.scss',
})
export class HeightOption {
  readonly store = inject(Store);
  readonly height = this.store.selectSignal(layoutFeature.selectBlockHeight);
  readonly actions = layoutActions;
}
