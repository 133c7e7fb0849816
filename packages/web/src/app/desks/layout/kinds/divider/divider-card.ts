import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { heldAt } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import { NumbersCard } from '../cards/numbers-card';
import type { ItemCard } from '../item-desk';

/** One divider: it is drawn on the Sight desk and moved here. */
@Component({
  selector: 'sv-divider-card',
  imports: [NumbersCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<sv-item-card heading="Divider" mark="divider" [note]="note()" [rows]="[]" [disabled]="disabled()" />`,
  styles: ':host { display: contents; }',
})
export class DividerCard implements ItemCard<'divider'> {
  private readonly desk = inject(LayoutDesk);
  readonly item = input.required<PlacedItem<'divider'>>();
  readonly disabled = input(false);
  readonly note = computed(() => heldAt(this.desk.tables().stratum, this.item().stratum)?.name ?? '');
}
