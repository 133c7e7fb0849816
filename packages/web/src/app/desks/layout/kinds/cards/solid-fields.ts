import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { BLOCK_SIGHTS } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';

/** Whether something solid hides what is behind it, as it is told. */
export const SIGHT_CHOICES = BLOCK_SIGHTS.map((value) => ({ value, text: value === 'hides' ? 'yes' : 'no' }));

/** What everything solid has: whether it blocks view, and its material. */
@Component({
  selector: 'sv-solid-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let solid = item().item;
    <div class="pair">
      <label
        >Blocks view
        <select #sight class="cell" [disabled]="disabled()" (change)="desk.set(item(), 'sight', sight.value)">
          @for (one of sights; track one.value) {
            <option [value]="one.value" [selected]="one.value === solid.sight">{{ one.text }}</option>
          }
        </select>
      </label>
      <label
        >Material
        <input
          #material
          class="cell"
          [value]="solid.material"
          maxlength="60"
          [disabled]="disabled()"
          (change)="material.value.trim() && desk.set(item(), 'material', material.value.trim())"
      /></label>
    </div>
  `,
  styleUrl: './pair.scss',
})
export class SolidFields {
  readonly desk = inject(LayoutDesk);
  readonly item = input.required<PlacedItem<'block' | 'wall'>>();
  readonly disabled = input(false);
  readonly sights = SIGHT_CHOICES;
}
